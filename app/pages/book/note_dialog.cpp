#include "app/pages/book/note_dialog.h"

#include <QCryptographicHash>
#include <QDialogButtonBox>
#include <QLabel>
#include <QPushButton>
#include <QSettings>
#include <QShortcut>
#include <QVBoxLayout>

#include "app/ground/theme/theme.h"
#include "app/kit/fields/lines_edit.h"

namespace yb {

NoteDialog::NoteDialog(const QString& shop, QWidget* parent)
    : QDialog(parent),
      key_(QStringLiteral("note/") + QString::fromLatin1(QCryptographicHash::hash(shop.toUtf8(), QCryptographicHash::Sha1).toHex())),
      prompt_(new QLabel),
      lines_(new LinesEdit) {
    setWindowTitle(tr("A note into the book"));
    setObjectName("note");
    prompt_->setObjectName("note_prompt");
    prompt_->setWordWrap(true);
    lines_->setObjectName("note_lines");
    lines_->setAccessibleName(tr("The note"));
    lines_->setTabChangesFocus(true);
    lines_->setPlainText(QSettings().value(key_).toString());
    connect(lines_, &QPlainTextEdit::textChanged, this, [this] {
        QSettings settings;
        settings.setValue(key_, text());
        settings.sync();  // now, not when there is time: the next key may be the one that ends the program
    });
    auto* buttons = new QDialogButtonBox(QDialogButtonBox::Ok | QDialogButtonBox::Cancel);
    buttons->button(QDialogButtonBox::Ok)->setText(tr("Into the book (Ctrl+Enter)"));
    for (QAbstractButton* b : buttons->buttons()) b->setIcon({});
    resize(theme::grown(420), theme::grown(260));
    connect(buttons, &QDialogButtonBox::accepted, this, &QDialog::accept);
    connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
    for (const int enter : {Qt::Key_Return, Qt::Key_Enter})
        connect(new QShortcut(QKeySequence(Qt::CTRL | static_cast<Qt::Key>(enter)), this), &QShortcut::activated, this, &QDialog::accept);
    auto* box = new QVBoxLayout(this);
    box->addWidget(prompt_);
    box->addWidget(lines_);
    box->addWidget(buttons);
}

bool NoteDialog::ask(const QString& prompt) {
    prompt_->setText(prompt);
    lines_->setFocus();
    lines_->moveCursor(QTextCursor::End);
    return exec() == QDialog::Accepted;
}

QString NoteDialog::text() const { return lines_->toPlainText(); }

void NoteDialog::forget() {
    QSettings settings;
    settings.remove(key_);
    settings.sync();
}

}  // namespace yb
