// The window's shops: the start, opening, making, repairing, the demo and what is grown for it.
#include <QDate>
#include <QDir>
#include <QFile>
#include <QFileDialog>
#include <QFileInfo>
#include <QInputDialog>
#include <QPushButton>
#include <QSettings>
#include <QStackedWidget>
#include <QStandardPaths>

#include "app/application.h"
#include "app/ground/session/pictures.h"
#include "app/ground/session/whole_file.h"
#include "app/ground/slow/long_work.h"
#include "app/ground/slow/runner.h"
#include "app/main_window.h"
#include "app/pages/start/start_card.h"
#include "app/pages/start/start_page.h"
#include "app/pages/start/ways_in.h"
#include "core/files/store/check.h"
#include "core/shop/edit/shop_edits.h"
#include "core/shop/job/documents.h"
#include "core/shop/pace/learned.h"
#include "demo/demo.h"

namespace yb {

void MainWindow::show_start(const QString& trouble, const QString& path, StoreError::Kind what) {
    show_start(new StartPage(trouble, path, what));
}

void MainWindow::show_start(StartPage* page) {
    if (start_) {
        pages_->removeWidget(start_);
        start_->deleteLater();
    }
    start_ = page;
    connect(start_, &StartPage::demo, this, [this] {
        const QString folder = QStandardPaths::writableLocation(QStandardPaths::AppDataLocation);
        QDir().mkpath(folder);
        open_demo(folder + "/demo.shop");
    });
    connect(start_, &StartPage::own, this, &MainWindow::own_shop);
    connect(start_, &StartPage::practise, this, &MainWindow::practise);
    connect(start_, &StartPage::plain, this, [this] { show_start(); });
    connect(start_, &StartPage::own_shop, this, &MainWindow::choose_shop);
    connect(start_, &StartPage::open, this, &MainWindow::open_shop);
    connect(start_, &StartPage::repair_it, this, &MainWindow::repair_shop);
    connect(start_, &StartPage::journal_aside, this, [this](const QString& shop) {
        try {
            const std::string kept = Store::set_journal_aside(shop.toStdString());
            open_shop(shop);
            if (session_.is_open() && session_.path() == shop)
                say(tr("The journal that lay beside it is kept as %1.").arg(QString::fromStdString(kept)));
        } catch (const StoreError& e) {
            say(QString::fromStdString(e.what()), true);
        }
    });
    pages_->addWidget(start_);
    pages_->setCurrentWidget(start_);
    start_->setFocus();
}

void MainWindow::repair_shop(const QString& path) {
    // Beside the damaged one, under a name that is free.
    const QFileInfo file(path);
    pages_->setCurrentIndex(0);  // where progress and troubles are shown
    const QString made = free_shop_name(file.dir().filePath(file.completeBaseName() + "-repaired"));
    work_->run(
        tr("Repairing the shop"), [path, made](const Work& w) { return yb::repair_shop(path.toStdString(), made.toStdString(), w); },
        [this, path, made](const Repair& repair) { show_start(new StartPage(repair, path, made)); });
}

void MainWindow::save_copy() {
    const QString path = ask_save(tr("Save a copy"), tr("Shop (*.shop)"));
    if (path.isEmpty()) return;
    try {
        session_.save_copy(path);
        say(tr("Saved a copy as %1").arg(path));
    } catch (const StoreError& e) {
        say(QString::fromStdString(e.what()), true);
    }
}

void MainWindow::take_what_is_there() {
    const QString path = session_.path();
    try {
        session_.take_what_is_there();
        pages_->setCurrentIndex(0);
    } catch (const StoreError& e) {
        say(QString::fromStdString(e.what()), true);
        show_start(QString::fromStdString(e.what()), path, e.kind());
    }
}

void MainWindow::choose_backup() {
    const QString path = session_.path();
    QStringList days;
    const std::vector<std::string> all = path.isEmpty() ? std::vector<std::string>() : backups_of(path.toStdString());
    for (const std::string& b : all) days << QFileInfo(QString::fromStdString(b)).completeBaseName();
    if (days.isEmpty()) return say(tr("There is no backup of this shop yet: the first is made when it is opened."), true);
    bool ok = false;
    const QString day = QInputDialog::getItem(
        this, tr("Go back to a backup"), tr("The shop as it was on which day? What stands now is kept beside it, under a name of its own."),
        days, 0, false, &ok);
    if (ok) restore(QString::fromStdString(all[static_cast<std::size_t>(days.indexOf(day))]));
}

void MainWindow::restore(const QString& backup) {
    const QString path = session_.path();
    if (session_.unsaved()) return say(tr("Something is not saved yet: try again or save a copy first."), true);
    try {
        const QString before = QString::fromStdString(session_.restore(backup.toStdString()));
        pages_->setCurrentIndex(0);
        say(tr("The shop is as it was in the backup. What stood there is kept as %1.").arg(before));
    } catch (const StoreError& e) {
        say(QString::fromStdString(e.what()), true);
        if (!session_.store()) show_start(QString::fromStdString(e.what()), path, e.kind());
    }
}

void MainWindow::own_shop(const QString& name, const QString& path) {
    Documents d;
    d.shop.name = name.toStdString();
    try {
        QDir().mkpath(QFileInfo(path).path());
        session_.create(path, d);
        remember(path);
        pages_->setCurrentIndex(0);
        keys_to_work();
        say(tr("%1 is open. It is kept in %2.").arg(name, QDir::toNativeSeparators(path)));
    } catch (const StoreError& e) {
        say(QString::fromStdString(e.what()), true);
    }
}

/// A log is grown into a shop of its own: nothing of it is counted in anybody's rack.
void MainWindow::practise() {
    own_shop(tr("Practice"), StartPage::place_for(tr("Practice")));
    if (session_.is_open()) show_grow();
}

void MainWindow::new_shop() {
    const QString path = ask_save(tr("New shop"), tr("Shop (*.shop)"));
    if (path.isEmpty()) return;
    try {
        session_.create(path, Documents());
        remember(path);
        pages_->setCurrentIndex(0);
    } catch (const StoreError& e) {
        say(QString::fromStdString(e.what()), true);
    }
}

void MainWindow::choose_shop() {
    const QString path =
        QFileDialog::getOpenFileName(this, tr("Open a shop"), {}, tr("Shop (*.shop);;All files (*)"), nullptr, QFileDialog::ReadOnly);
    if (!path.isEmpty()) open_shop(path);
}

void MainWindow::open_shop(const QString& path) {
    try {
        session_.open(path);
        remember(path);
        pages_->setCurrentIndex(0);
        if (session_.store() && session_.store()->newer())
            say(tr("A newer program wrote this shop: it can be looked at here, not changed. What this program does not know is kept."),
                true);
        else if (session_.read_only()) say(session_.why_read_only(), true);
        else if (take_up_card()) say(tr("A card was broken off: it goes on where it was."));
        else say({});
    } catch (const StoreError& e) {
        say(QString::fromStdString(e.what()), true);
        show_start(QString::fromStdString(e.what()), path, e.kind());
    }
}

void MainWindow::open_demo(const QString& path) {
    if (QFile::exists(path)) {
        open_shop(path);
    } else {
        try {
            // What the table that was delivered taught is used on the next.
            Documents demo = demo_shop();
            take_paces(demo.shop, learned_paces(demo).figures);
            session_.create(path, demo);
            session_.store()->write(demo_book());
            pages_->setCurrentIndex(0);
        } catch (const StoreError& e) {
            show_start(QString::fromStdString(e.what()), path);
        }
    }
    grow_demo_pictures();
}

void MainWindow::finish_growing() { wait_for_all(); }

/// The faces of the demo's logs are grown once, beside the work.
void MainWindow::grow_demo_pictures() {
    Store* store = session_.store();
    if (!store || session_.read_only()) return;
    bool wanted = false;
    for (const auto& [id, slab] : session_.slabs())
        if (slab.picture_a && slab.picture_a->key == id + "/a" && !store->has_attachment(slab.picture_a->key)) wanted = true;
    if (!wanted) return;
    say(tr("Growing the pictures of the demo's logs…"));
    run_beside(
        this,
        [this, path = session_.path()](const Work& w) -> std::function<void()> {
            auto pictures = demo_pictures(w);
            // Photographs of the table that was made.
            for (const char* name : {"outflow-slabs", "outflow-table"})
                if (QFile file(QStringLiteral(":/demo/%1.jpg").arg(QLatin1String(name))); file.open(QIODevice::ReadOnly))
                    pictures.emplace_back(std::string("photo/") + name, file.readAll().toStdString());
            return [this, path, pictures = std::move(pictures)] {
                if (session_.path() != path || !session_.store()) return;
                try {
                    session_.store()->attach(pictures);
                } catch (const StoreError& e) {
                    return say(QString::fromStdString(e.what()), true);
                }
                pictures_->forget_all();
                say({});
                Q_EMIT pictures_->arrived({});
            };
        },
        [this](const QString& sentence) { say(tr("The demo's pictures could not be grown: %1.").arg(sentence), true); });
}

void MainWindow::remember(const QString& path) {
    QSettings settings;
    settings.setValue(last_open_key(path), QDate::currentDate());
    QStringList list = settings.value("recent").toStringList();
    list.removeAll(path);
    list.prepend(path);
    while (list.size() > 8) list.removeLast();
    settings.setValue("recent", list);
}

}  // namespace yb
