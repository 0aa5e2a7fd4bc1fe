#include "app/pages/start/start_page.h"

#include <algorithm>

#include <QFile>
#include <QFileInfo>
#include <QLabel>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QVBoxLayout>

#include "app/ground/session/whole_file.h"
#include "app/ground/slow/runner.h"
#include "app/ground/theme/theme.h"
#include "core/files/store/check.h"

namespace yb {

template <class F>
QPushButton* StartPage::offer(const QString& name, const QString& words, F run, bool strong) {
    auto* b = new QPushButton(words);
    b->setObjectName(name);
    b->setProperty(strong ? "next" : "quiet", true);
    b->setFixedWidth(theme::grown(420));
    b->setMinimumHeight(38);
    connect(b, &QPushButton::clicked, this, run);
    box_->addWidget(b);
    return b;
}

void StartPage::begin(const QString& title, const QString& text) {
    box_ = new QVBoxLayout(this);
    box_->setContentsMargins(120, 90, 120, 60);
    box_->setSpacing(12);
    auto* head = new QLabel(title);
    head->setFont(theme::figures(26, true));
    box_->addWidget(head);
    auto* body = new QLabel(text);
    body->setObjectName("start_text");
    body->setWordWrap(true);
    body->setFont(theme::text(12));
    box_->addWidget(body);
    told_ = new QLabel;
    told_->setObjectName("start_told");
    told_->setWordWrap(true);
    told_->setFont(theme::text(12));
    told_->setStyleSheet(QStringLiteral("color: %1").arg(theme::colours().madder.name()));
    told_->hide();
    box_->addWidget(told_);
    box_->addSpacing(20);
}

void StartPage::tell(const QString& text) {
    told_->setText(text);
    told_->setVisible(!text.isEmpty());
}

void StartPage::offer_shops(bool strong) {
    offer("start_demo", tr("The demo shop: a small workshop by a tarn"), &StartPage::demo, strong);
    offer("start_empty", tr("An empty rack"), &StartPage::empty_rack);
    offer("start_open", tr("A shop you already have"), &StartPage::own_shop);
}

StartPage::StartPage(const QString& why, const QString& path, bool damaged, QWidget* parent) : QWidget(parent) {
    const bool plain = why.isEmpty();
    begin(plain ? tr("What is on the bench?") : tr("That shop could not be opened"),
          plain ? tr("Young Burl keeps a shop – its slabs, its jobs – in one file. Everything you type is kept as you type it.") : why);
    if (damaged) {
        offer_backup(path, true);
        offer("open_repair", tr("Put everything that is whole into a new file"), [this, path] { Q_EMIT repair_it(path); });
    }
    offer_shops(plain);
    box_->addStretch(1);
}

StartPage::StartPage(const Repair& repair, const QString& path, const QString& made, QWidget* parent) : QWidget(parent) {
    const QString kept = tr("%1 revisions, %2 pictures and scans and %3 entries of the book are whole and are in %4. The damaged file "
                            "was left as it is.")
                             .arg(repair.revisions)
                             .arg(repair.attachments)
                             .arg(repair.entries)
                             .arg(made);
    begin(tr("What is whole is in a new file"),
          repair.whole() ? kept + " " + tr("Nothing is missing.") : kept + " " + tr("This is not whole:"));
    if (!repair.whole()) {
        auto* list = new QPlainTextEdit;
        list->setObjectName("repair_lost");
        list->setReadOnly(true);
        list->setFont(theme::text(11));
        list->setMaximumHeight(theme::grown(40 + 20 * static_cast<int>(std::min<std::size_t>(repair.lost.size(), 9))));
        for (const std::string& l : repair.lost) list->appendPlainText(QString::fromStdString(l));
        box_->addWidget(list);
    }
    offer(
        "open_repaired", tr("Open it"), [this, made] { Q_EMIT open(made); }, true);
    offer_backup(path, false);
    offer_shops(false);
    box_->addStretch(1);
}

void StartPage::offer_backup(const QString& path, bool strong) {
    QPushButton* b = offer(
        "open_backup", tr("Looking for a backup that is whole…"), [this, path] { open_backup(backup_, path); }, strong);
    b->setEnabled(false);
    // Every backup is looked through until one is whole: in a large shop that takes its time.
    run_beside(
        this,
        [this, b, path](const Work&) -> std::function<void()> {
            return [this, b, found = newest_backup(path.toStdString())] {
                if (!found) return b->setText(tr("There is no backup that is whole"));
                backup_ = QString::fromStdString(*found);
                b->setText(tr("Open the backup of %1, as a copy").arg(QFileInfo(backup_).completeBaseName()));
                b->setEnabled(true);
            };
        },
        [this](const QString& sentence) { tell(sentence); });
}

void StartPage::open_backup(const QString& backup, const QString& path) {
    // The damaged file stays as it is, and so does the backup.
    const QString copy = free_shop_name(path + ".from-" + QFileInfo(backup).completeBaseName());
    if (QFile::copy(backup, copy)) Q_EMIT open(copy);
    else tell(tr("%1 can't be copied here.").arg(backup));
}

}  // namespace yb
