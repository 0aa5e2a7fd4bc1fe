// Several lines to type.
#pragma once

#include <QMimeData>
#include <QPlainTextEdit>

namespace yb {

/// The toolkit's control asks the first format of what is pasted without looking whether there is one: a clipboard that its owner has left
/// offers none, and pasting it (by keys, the middle button or the menu) would end the program.
class LinesEdit : public QPlainTextEdit {
  public:
    using QPlainTextEdit::QPlainTextEdit;

  protected:
    void insertFromMimeData(const QMimeData* source) override {
        if (source && !source->formats().isEmpty()) QPlainTextEdit::insertFromMimeData(source);
    }
};

}  // namespace yb
