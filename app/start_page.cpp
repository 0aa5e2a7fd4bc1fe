#include "app/start_page.h"

#include <QFile>
#include <QFileInfo>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include "app/theme/theme.h"
#include "core/store/store.h"

namespace yb {

StartPage::StartPage(const QString& why, const QString& path, bool damaged, QWidget* parent) : QWidget(parent) {
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(120, 90, 120, 60);
    box->setSpacing(12);
    const bool plain = why.isEmpty();
    auto* title = new QLabel(plain ? tr("What is on the bench?") : tr("That shop could not be opened"));
    title->setFont(theme::figures(26, true));
    box->addWidget(title);
    auto* text = new QLabel(
        plain ? tr("Young Burl keeps a shop – its slabs, its jobs – in one file. Everything you type is kept as you type it.") : why);
    text->setObjectName("start_text");
    text->setWordWrap(true);
    text->setFont(theme::text(12));
    box->addWidget(text);
    box->addSpacing(20);
    const auto offer = [&](const QString& name, const QString& words, auto run, bool strong = false) {
        auto* b = new QPushButton(words);
        b->setObjectName(name);
        b->setProperty(strong ? "next" : "quiet", true);
        b->setFixedWidth(theme::grown(420));
        b->setMinimumHeight(38);
        connect(b, &QPushButton::clicked, this, run);
        box->addWidget(b);
    };
    if (damaged) {
        if (const auto backup = newest_backup(path.toStdString())) {
            const QString from = QString::fromStdString(*backup);
            offer(
                "open_backup", tr("Open the backup of %1, as a copy").arg(QFileInfo(from).completeBaseName()),
                [this, from, path] { open_backup(from, path); }, true);
        }
        offer("open_salvage", tr("Look at what can still be read"), &StartPage::salvage_it);
    }
    offer("start_demo", tr("The demo shop: a small workshop by a tarn"), &StartPage::demo, plain);
    offer("start_empty", tr("An empty rack"), &StartPage::empty_rack);
    offer("start_open", tr("A shop you already have"), &StartPage::own_shop);
    box->addStretch(1);
}

void StartPage::open_backup(const QString& backup, const QString& path) {
    // The damaged file stays as it is, and so does the backup.
    const QString stem = path + ".from-" + QFileInfo(backup).completeBaseName();
    QString copy = stem + ".shop";
    for (int i = 2; QFile::exists(copy); ++i) copy = stem + QString("-%1.shop").arg(i);
    if (QFile::copy(backup, copy)) Q_EMIT open(copy);
    else Q_EMIT trouble(tr("%1 can't be copied here.").arg(backup));
}

}  // namespace yb
