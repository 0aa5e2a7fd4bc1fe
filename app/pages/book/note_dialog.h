// A note into the book, as it is written.
#pragma once

#include <QDialog>

class QLabel;

namespace yb {

class LinesEdit;

/// What is typed is kept from letter to letter beside the program's settings, a note a shop: put aside, or after a crash, it is there
/// again.
class NoteDialog : public QDialog {
    Q_OBJECT
  public:
    NoteDialog(const QString& shop, QWidget* parent);
    /// @returns whether it is to go into the book.
    bool ask(const QString& prompt);
    QString text() const;
    /// It stands in the book: the next one begins empty.
    void forget();

  private:
    QString key_;
    QLabel* prompt_;
    LinesEdit* lines_;
};

}  // namespace yb
