// What pages beside the bench are put together from: a quiet button, a label with a name, the slip at their right.
#pragma once

#include <QFont>
#include <QLabel>
#include <QPushButton>
#include <QString>
#include <QWidget>

namespace yb {

/// A button that does not call for a press.
QPushButton* quiet_button(const QString& name, const QString& text, const QString& tip = {});
/// A label that is found by its name.
QLabel* named_label(const QString& name, const QFont& font, bool wraps = true);
/// As wide as the slip, on its paper.
QWidget* side_slip(const QString& name);

}  // namespace yb
