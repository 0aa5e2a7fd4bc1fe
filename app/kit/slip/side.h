// What pages beside the bench are put together from: a quiet button, a label with a name, the slip at their right.
#pragma once

#include <QFont>
#include <QLabel>
#include <QPushButton>
#include <QString>
#include <QWidget>

class QVBoxLayout;

namespace yb {

/// A button that does not call for a press.
QPushButton* quiet_button(const QString& name, const QString& text, const QString& tip = {});
/// A label that is found by its name.
QLabel* named_label(const QString& name, const QFont& font, bool wraps = true);
/// As wide as the slip, on its paper.
QWidget* side_slip(const QString& name);

/// The frame of a page: its title with a line about it, room for a drawing or a list below, a slip on the right with the way back at its
/// foot.
struct PageFrame {
    QVBoxLayout* room;   ///< left, below the head
    QVBoxLayout* slip;   ///< on the right
    QPushButton* leave;  ///< "Back to the bench", to be put at the foot of the slip
    /// @param name of the page's widgets: "money" makes money_side, money_back. @param about beside the title, in one line.
    PageFrame(QWidget* page, const QString& name, const QString& title, QLabel* about);
};

}  // namespace yb
