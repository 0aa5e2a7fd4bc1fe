// The window's pages: each is made when it is first gone to.
#include <QPushButton>
#include <QSettings>
#include <QStackedWidget>

#include <utility>

#include "app/files/bring.h"
#include "app/ground/instruments.h"
#include "app/kit/bench/bench.h"
#include "app/kit/slip/slip.h"
#include "app/kit/step_views.h"
#include "app/kit/stick/stick.h"
#include "app/main_window.h"
#include "app/pages/book/book_page.h"
#include "app/pages/card/card_page.h"
#include "app/pages/days/days_page.h"
#include "app/pages/find/find_page.h"
#include "app/pages/grow/grow_page.h"
#include "app/pages/guide/guide_page.h"
#include "app/pages/jobs/jobs_page.h"
#include "app/pages/log/log_page.h"
#include "app/pages/money/money_page.h"
#include "app/pages/photo/photo_page.h"
#include "app/pages/shop/shop_page.h"
#include "app/pages/start/start_page.h"
#include "app/pages/tour/tour.h"
#include "core/shop/job/cards.h"
#include "core/shop/job/documents.h"

namespace yb {

namespace {

/// Makes a page the first time it is gone to; its way back leads to the bench. @returns it where it was made just now.
template <class Page, class... With>
Page* first_time(Page*& page, QStackedWidget* pages, With&&... with) {
    if (page) return nullptr;
    page = new Page(std::forward<With>(with)...);
    pages->addWidget(page);
    QObject::connect(page, &Page::back, pages, [pages] { pages->setCurrentIndex(0); });
    return page;
}

}  // namespace

void MainWindow::show_grow() {
    if (first_time(grow_, pages_, session_)) {
        connect(grow_, &GrowPage::saw, this, [this](const LogRecipe& recipe, const SawPlan& plan, const DryPlan& dry) {
            pages_->setCurrentIndex(0);
            bring_log(session_, *work_, recipe, plan, dry, 2, [this](const QString& text) { say(text); });
        });
    }
    pages_->setCurrentWidget(grow_);
}

void MainWindow::show_find_tops() {
    if (!session_.is_open()) return;
    first_time(find_tops_, pages_, session_, *pictures_);
    pages_->setCurrentWidget(find_tops_);
}

QString MainWindow::topic() const {
    const QWidget* page = pages_->currentWidget();
    for (const auto& [of, name] : {std::pair<const QWidget*, const char*>{shop_, "shop"},
                                   {find_tops_, "find"},
                                   {log_, "log"},
                                   {jobs_, "jobs"},
                                   {days_, "days"},
                                   {book_, "book"},
                                   {money_, "money"},
                                   {grow_, "grow"},
                                   {photo_, "photo"},
                                   {start_, "start"}})
        if (of && page == of) return name;
    if (page == card_ && card_) return "pour";
    if (const QString headline = slip_->open_mind(); !headline.isEmpty()) return headline;
    return QString::fromStdString(std::string(session_.step().key));
}

void MainWindow::show_guide() {
    const QString at = topic();
    if (!guide_) {
        guide_ = new GuidePage;
        pages_->addWidget(guide_);
        connect(guide_, &GuidePage::back, this, [this] {
            pages_->setCurrentWidget(guide_from_ ? guide_from_ : pages_->widget(0));
            keys_to_work();
        });
    }
    if (pages_->currentWidget() != guide_) guide_from_ = pages_->currentWidget();
    pages_->setCurrentWidget(guide_);
    guide_->open_at(at);
}

void MainWindow::take_tour() {
    tour_offer_->hide();
    if (tour_ || !session_.is_open()) return;
    pages_->setCurrentIndex(0);
    const auto widget = [this](const char* name) { return findChild<QWidget*>(name); };
    const bool bare = middle_->currentIndex() == 2;
    tour_ = new Tour(
        {{bare ? tr("Here your slabs will stand") : tr("The bench"),
          bare ? tr("Six ways a slab comes in. A tape and a chalk line are enough: the slab draws itself as you type.")
               : tr("The work itself, to scale: from above, along it, and across at the brass square. Things are handled where they lie: "
                    "drag them, "
                    "click a measure to type it."),
          [this]() -> QWidget* { return middle_; }},
         {tr("The slip"),
          tr("It speaks of what is picked: one figure large, a few more below. Click any figure and it shows how it was reached. Tab goes "
             "from thing "
             "to thing, Esc back to the top."),
          [this]() -> QWidget* { return slip_; }},
         {tr("What comes next"),
          tr("This button always does what it says, from the first slab to the printed sheet. Ctrl+Enter presses it; Ctrl+Z takes anything "
             "back."),
          [widget]() -> QWidget* { return widget("next") ? widget("next") : widget("slip_paper"); }},
         {tr("The story stick"),
          tr("The steps of this job, and between them its operations with their dates. Click a step to go there, or press 1 to 7."),
          [this]() -> QWidget* { return stick_; }},
         {tr("Jobs and the shop"),
          tr("The name opens all jobs (J); S is what belongs to the shop. F1 opens the guide at whatever you look at. There is no saving: "
             "all you type is "
             "kept."),
          [this]() -> QWidget* { return job_; }}},
        pages_->widget(0));
    connect(tour_, &Tour::left, this, [this] {
        tour_ = nullptr;
        keys_to_work();
    });
}

/// Once, the first time a shop is open: a line at the top, no more.
void MainWindow::offer_tour() {
    QSettings settings;
    if (settings.value("tour_offered").toBool()) return;
    settings.setValue("tour_offered", true);
    tour_offer_->show();
}

void MainWindow::show_jobs() {
    if (!session_.is_open()) return;
    first_time(jobs_, pages_, session_, *pictures_);
    pages_->setCurrentWidget(jobs_);
}

void MainWindow::show_days() {
    if (!session_.is_open()) return;
    if (first_time(days_, pages_, session_)) {
        connect(days_, &DaysPage::days_off_wanted, this, &MainWindow::choose_days_off);
        connect(days_, &DaysPage::calendar_wanted, this, &MainWindow::write_calendar);
        connect(days_, &DaysPage::week_sheet_wanted, this, &MainWindow::write_week);
        connect(days_, &DaysPage::calendar_let_go, this, [this] { keep_calendar({}); });
        connect(days_, &DaysPage::settled, this, &MainWindow::write_kept_calendar);
    }
    pages_->setCurrentWidget(days_);
}

void MainWindow::show_book() {
    if (!session_.is_open()) return;
    if (first_time(book_, pages_, session_, *pictures_)) {
        connect(book_, &BookPage::note_wanted, this, &MainWindow::write_note);
        connect(book_, &BookPage::photo_wanted, this, &MainWindow::choose_job_photo);
        connect(book_, &BookPage::print_wanted, this, &MainWindow::write_book);
        connect(book_, &BookPage::agreement_wanted, this, &MainWindow::write_agreement);
        connect(book_, &BookPage::signed_wanted, this, &MainWindow::choose_signed);
    }
    pages_->setCurrentWidget(book_);
}

void MainWindow::show_money() {
    if (!session_.is_open()) return;
    if (first_time(money_, pages_, session_, *pictures_)) {
        connect(money_, &MoneyPage::offer_wanted, this, &MainWindow::write_offer);
        connect(money_, &MoneyPage::shopping_wanted, this, &MainWindow::write_shopping);
        connect(money_, &MoneyPage::say, this, &MainWindow::say);
    }
    pages_->setCurrentWidget(money_);
}

void MainWindow::show_log() {
    if (!session_.is_open()) return;
    if (first_time(log_, pages_, session_, *pictures_, *work_)) {
        connect(log_, &LogPage::say, this, &MainWindow::say);
    }
    pages_->setCurrentWidget(log_);
}

CardPage* MainWindow::show_card(const QString& card) {
    if (first_time(card_, pages_, session_)) {
        connect(&instruments(), &Instruments::weighed, card_, &CardPage::take_mass);
    }
    card_->open(card);
    pages_->setCurrentWidget(card_);
    return card_;
}

bool MainWindow::take_up_card() {
    for (const auto& [id, card] : running_cards(session_.documents())) {
        session_.set_job(QString::fromStdString(id));
        show_card(QString::fromStdString(card));
        return true;
    }
    return false;
}

}  // namespace yb
