#include "app/file_trouble.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>

#include "app/ground/session/session.h"
#include "app/ground/theme/theme.h"

namespace yb {

FileTrouble::FileTrouble(Session& session)
    : session_(session),
      says_(new QLabel),
      again_(new QPushButton(tr("try again"))),
      copy_(new QPushButton(tr("save a copy"))),
      take_(new QPushButton(tr("open what is there"))) {
    setObjectName("file_trouble");
    setStyleSheet(QStringLiteral("#file_trouble { border-bottom: 2px solid %1; }").arg(theme::colours().madder.name()));
    says_->setObjectName("file_trouble_says");
    says_->setTextFormat(Qt::PlainText);
    says_->setWordWrap(true);
    says_->setFont(theme::text(10.5));
    says_->setStyleSheet(QStringLiteral("color: %1").arg(theme::colours().madder.name()));
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(24, 8, 24, 8);
    row->addWidget(says_, 1);
    const std::pair<QPushButton*, const char*> named[] = {
        {again_, "page_try_again"}, {copy_, "page_keep_copy"}, {take_, "page_take_there"}};
    for (const auto& [button, name] : named) {
        button->setObjectName(name);
        row->addWidget(button);
    }
    connect(again_, &QPushButton::clicked, &session_, &Session::try_again);
    connect(copy_, &QPushButton::clicked, this, &FileTrouble::copy_wanted);
    connect(take_, &QPushButton::clicked, this, &FileTrouble::take_wanted);
    connect(&session_, &Session::trouble, says_, &QLabel::setText);
    hide();
}

void FileTrouble::refresh(bool wanted) {
    again_->setVisible(session_.unsaved());
    take_->setVisible(session_.other_there());
    setVisible(wanted && (session_.unsaved() || session_.away()));
}

}  // namespace yb
