#include "app/main_window.h"

#include <QDate>
#include <QDir>
#include <QFile>
#include <QFileDialog>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QMenu>
#include <QMenuBar>
#include <QMimeData>
#include <QDropEvent>
#include <QLabel>
#include <QPainter>
#include <QPushButton>
#include <QScreen>
#include <QSettings>
#include <QStackedWidget>
#include <QApplication>
#include <QStandardPaths>
#include <QVBoxLayout>

#include "app/application.h"
#include "app/kit/bench/bench.h"
#include "app/pages/book/learning.h"
#include "app/pages/card/card_page.h"
#include "app/files/bring.h"
#include "app/pages/grow/grow_page.h"
#include "app/pages/start/ways_in.h"
#include "app/ground/slow/long_work.h"
#include "app/pages/photo/photo_page.h"
#include "app/pages/find/find_page.h"
#include "app/pages/find/find_panel.h"
#include "app/pages/guide/guide_page.h"
#include "app/ground/instruments.h"
#include "app/pages/book/book_page.h"
#include "app/pages/days/days_page.h"
#include "app/pages/money/money_page.h"
#include "app/pages/jobs/jobs_page.h"
#include "app/pages/log/log_page.h"
#include "app/steps/rack/rack_row.h"
#include "app/steps/rack/tape_panel.h"
#include "app/ground/session/pictures.h"
#include "app/ground/session/whole_file.h"
#include "app/steps/sheets/sheet.h"
#include "app/pages/shop/shop_page.h"
#include "app/kit/slip/slip.h"
#include "app/ground/slow/runner.h"
#include "app/pages/start/start_card.h"
#include "app/pages/start/start_page.h"
#include "app/pages/tour/tour.h"
#include "app/kit/step_views.h"
#include "app/kit/stick/stick.h"
#include "app/ground/theme/theme.h"
#include "app/ground/words.h"
#include "core/shop/job/cards.h"
#include "core/shop/pace/learned.h"
#include "core/shop/edit/shop_edits.h"
#include "core/shop/job/documents.h"
#include "core/files/store/check.h"
#include "demo/demo.h"

namespace yb {

namespace {
/// One line of quiet words that gives way when the window is narrow.
class QuietLine : public QLabel {
  public:
    QuietLine() { setSizePolicy(QSizePolicy::Maximum, QSizePolicy::Preferred); }
    QSize minimumSizeHint() const override { return {30, QLabel::minimumSizeHint().height()}; }

  protected:
    void paintEvent(QPaintEvent*) override {
        QPainter p(this);
        p.setFont(font());
        p.setPen(theme::colours().pencil);
        p.drawText(rect(), Qt::AlignLeft | Qt::AlignVCenter, what_fits(text(), fontMetrics(), width()));
    }
};

QPushButton* plain(const QString& text, const QString& name, QWidget* parent) {
    auto* b = new QPushButton(text, parent);
    b->setObjectName(name);
    b->setProperty("plain", true);
    b->setCursor(Qt::PointingHandCursor);
    return b;
}
}  // namespace

MainWindow::MainWindow() {
    setWindowTitle("Young Burl");
    setWindowIcon(QIcon(QStringLiteral(":/icons/young-burl.svg")));
    setMinimumSize(1000, 540);
    setAcceptDrops(true);
    resize(1280, 800);
    pictures_ = new Pictures(session_, this);
    bench_ = new Bench(session_, *pictures_);
    rack_row_ = new RackRow(session_, *pictures_);
    tape_ = new TapePanel(session_);
    tape_->hide();
    sheet_ = new SheetView(session_);
    slip_ = new Slip(session_);
    stick_ = new Stick(session_);
    work_ = new LongWork;
    const StepParts parts{*bench_,
                          *tape_,
                          *work_,
                          *pictures_,
                          [this] { print_sheet(); },
                          [this] {
                              const QString path = ask_save(tr("Save the sheet"), tr("PDF (*.pdf)"), session_.job_name() + ".pdf");
                              if (!path.isEmpty()) save_pdf(path);
                          }};
    for (const StepViewRow& row : step_views()) steps_.push_back(row.make(parts));
    auto* work = new QWidget;
    auto* column = new QVBoxLayout(work);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addWidget(build_top());
    auto* row = new QHBoxLayout;
    row->setSpacing(0);
    middle_ = new QStackedWidget;
    auto* bench_page = new QWidget;
    auto* bench_column = new QVBoxLayout(bench_page);
    bench_column->setContentsMargins(0, 0, 0, 0);
    bench_column->setSpacing(0);
    bench_column->addWidget(rack_row_);
    bench_column->addWidget(bench_, 3);
    bench_column->addWidget(tape_, 2);
    middle_->addWidget(bench_page);
    middle_->addWidget(sheet_);
    auto* ways = new WaysIn;
    connect(ways, &WaysIn::tape, this, [this] {
        for (const Action& a : view_->actions(session_))
            if (a.name == "new_slab") return a.run();
    });
    connect(ways, &WaysIn::photograph, this, &MainWindow::choose_photo);
    connect(ways, &WaysIn::scan, this, &MainWindow::choose_scan);
    connect(ways, &WaysIn::drawing, this, [this] { choose_drawing(OutlineAs::slab); });
    connect(ways, &WaysIn::list, this, &MainWindow::choose_list);
    connect(ways, &WaysIn::log, this, &MainWindow::show_grow);
    middle_->addWidget(ways);
    row->addWidget(middle_, 1);
    row->addWidget(slip_);
    column->addLayout(row, 1);
    column->addWidget(stick_);
    pages_ = new QStackedWidget;
    pages_->setObjectName("pages");
    pages_->addWidget(work);
    shop_ = new ShopPage(session_);
    pages_->addWidget(shop_);
    find_ = new FindPanel(session_, work);
    connect(shop_, &ShopPage::back, this, [this] { pages_->setCurrentIndex(0); });
    connect(&session_, &Session::shop_wanted, this, [this](const QString& group) {
        shop_->show_group(group);
        show_shop();
    });
    connect(&session_, &Session::picture_wanted, this, &MainWindow::choose_photo);
    connect(&session_, &Session::sample_wanted, this, &MainWindow::choose_sample);
    connect(&session_, &Session::measure_wanted, this, &MainWindow::type_tape);
    connect(&session_, &Session::card_wanted, this, &MainWindow::show_card);
    connect(&session_, &Session::find_wanted, this, &MainWindow::show_find_tops);
    connect(&session_, &Session::form_wanted, this, [this] { choose_drawing(OutlineAs::free_form); });
    connect(find_, &FindPanel::nothing, this, [this](const QString& text) { say(tr("Nothing is called “%1”.").arg(text)); });
    setCentralWidget(pages_);
    build_menus();
    // In sight on every page: how far it is, and the way to stop it.
    menuBar()->setCornerWidget(work_, Qt::TopRightCorner);
    connect(slip_, &Slip::show_place, this, [this](const Caution& c) {
        if (c.at) session_.set_gauge(c.at->x);
    });
    connect(bench_, &Bench::say, this, [this](const QString& s) { say(s); });
    // The tape table needs the room of the rack above.
    connect(bench_, &Bench::plan_only_changed, this,
            [this](bool only) { rack_row_->setVisible(!only && session_.step() == step_key::rack); });
    connect(tape_, &TapePanel::say, this, [this](const QString& s) { say(s); });
    connect(&session_, &Session::trouble, this, [this](const QString& s) { say(s, true); });
    connect(&session_, &Session::damaged, this, [this](const QString& what) {
        say(tr("The file is damaged somewhere; what you see is whole."), true);
        status_->setToolTip(tr("Damaged: %1. Repair puts everything that is whole into a new file and says what is not.").arg(what));
        mend_->setProperty("shop", session_.path());
        mend_->show();
    });
    connect(&session_, &Session::news, this, [this](const QString& s) { say(s); });
    if (auto* app = qobject_cast<Application*>(QApplication::instance()))
        connect(app, &Application::trouble, this, [this](const QString& s) { say(s, true); });
    connect(&session_, &Session::changed, this, &MainWindow::refresh);
    // Another shop: the keys go to the bench, whatever page or dialog had them.
    connect(&session_, &Session::opened, bench_, [this] {
        keys_to_work();
        offer_tour();
    });
    connect(&session_, &Session::step_changed, this, &MainWindow::show_step);
    connect(new Learning(session_, this), &Learning::learned, this, [this](const QString& s) { say(s); });
    show_step();
    show_start();
}

MainWindow::~MainWindow() {
    // Everything in the window holds the session: it goes before it.
    slip_->set_step_view(nullptr);
    bench_->set_step_view(nullptr);
    delete takeCentralWidget();
    delete pictures_;
    steps_.clear();
}

QRect MainWindow::fitted(QRect wanted, const QRect& available, const QMargins& frame) {
    const QRect room = available.marginsRemoved(frame);
    wanted.setSize(wanted.size().boundedTo(room.size()));
    wanted.moveLeft(std::clamp(wanted.left(), room.left(), room.right() - wanted.width() + 1));
    wanted.moveTop(std::clamp(wanted.top(), room.top(), room.bottom() - wanted.height() + 1));
    return wanted;
}

void MainWindow::open_where_it_was() {
    const QRect kept = QSettings().value("window").toRect();
    const QScreen* at = kept.isValid() ? QGuiApplication::screenAt(kept.center()) : nullptr;
    if (!at) at = QGuiApplication::primaryScreen();
    if (!at) return;
    const QRect available = at->availableGeometry();
    QRect wanted = kept;
    if (!kept.isValid()) {
        wanted = QRect(0, 0, 1280, 800);
        wanted.moveCenter(available.center());
    }
    // What a window manager puts around it is known only when it is shown: a usual title bar is counted.
    setGeometry(fitted(wanted, available, {4, 34, 4, 4}));
}

void MainWindow::closeEvent(QCloseEvent* e) {
    if (QWidget* line = focusWidget()) line->clearFocus();
    if (!isMaximized() && !isFullScreen()) QSettings().setValue("window", geometry());
    QMainWindow::closeEvent(e);
}

QWidget* MainWindow::build_top() {
    auto* top = new QWidget;
    top->setFixedHeight(theme::grown(44));
    auto* row = new QHBoxLayout(top);
    row->setContentsMargins(18, 0, 18, 0);
    row->setSpacing(16);
    job_ = plain({}, "job", top);
    job_->setFont(theme::figures(12.5));
    job_->setStyleSheet(QStringLiteral("color: %1").arg(theme::colours().ink.name()));
    job_->setToolTip(tr("All jobs: open, copy, rename, put away (J)"));
    connect(job_, &QPushButton::clicked, this, &MainWindow::show_jobs);
    const auto quiet = [&](const QString& name, double size) {
        auto* l = name == "about" || name == "air" ? new QuietLine : new QLabel;
        l->setObjectName(name);
        l->setFont(theme::text(size));
        l->setStyleSheet(QStringLiteral("color: %1").arg(theme::colours().pencil.name()));
        return l;
    };
    about_ = quiet("about", 10);
    air_ = quiet("air", 10);
    settles_ = quiet("settles", 11);
    settles_->setFont(theme::figures(11));
    settles_->setStyleSheet(QStringLiteral("color: %1").arg(theme::colours().ink.name()));
    status_ = quiet("status", 9.5);
    status_->setTextFormat(Qt::PlainText);
    status_->setWordWrap(true);
    tour_offer_ = plain(tr("New here? A tour of five stops"), "tour_offer", top);
    tour_offer_->hide();
    connect(tour_offer_, &QPushButton::clicked, this, &MainWindow::take_tour);
    try_again_ = plain(tr("try again"), "try_again", top);
    connect(try_again_, &QPushButton::clicked, &session_, &Session::try_again);
    units_ = plain({}, "units", top);
    units_->setToolTip(tr("Millimetres or inches, everywhere (Ctrl+U)"));
    connect(units_, &QPushButton::clicked, this, [this] { session_.edit_shop(tr("Units"), other_units); });
    undo_ = plain(tr("undo"), "undo", top);
    redo_ = plain(tr("redo"), "redo", top);
    connect(undo_, &QPushButton::clicked, &session_, &Session::undo);
    connect(redo_, &QPushButton::clicked, &session_, &Session::redo);
    auto* find_button = plain(tr("find"), "find", top);
    find_button->setToolTip(tr("Slabs, jobs and figures (Ctrl+F)"));
    connect(find_button, &QPushButton::clicked, this, [this] { find_->open(); });
    row->addWidget(job_);
    row->addWidget(about_);
    row->addWidget(status_, 1);
    connect(work_, &LongWork::trouble, this, [this](const QString& text) { say(tr("%1. Nothing was changed.").arg(text), true); });
    row->addWidget(tour_offer_);
    row->addWidget(try_again_);
    mend_ = plain(tr("repair"), "mend", top);
    mend_->hide();
    connect(mend_, &QPushButton::clicked, this, [this] { repair_shop(session_.path()); });
    row->addWidget(mend_);
    row->addWidget(air_);
    row->addWidget(settles_);
    for (QWidget* w :
         {static_cast<QWidget*>(units_), static_cast<QWidget*>(undo_), static_cast<QWidget*>(redo_), static_cast<QWidget*>(find_button)})
        row->addWidget(w);
    return top;
}

void MainWindow::show_start(const QString& trouble, const QString& path, bool damaged) {
    show_start(new StartPage(trouble, path, damaged));
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
    const QString path = QFileDialog::getOpenFileName(this, tr("Open a shop"), {}, tr("Shop (*.shop);;All files (*)"));
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
        show_start(QString::fromStdString(e.what()), path, e.kind() == StoreError::Kind::damaged);
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
                if (QFile file(QStringLiteral(":/demo/%1.jpg").arg(QLatin1String(name))); file.open(QIODevice::ReadOnly)) pictures.emplace_back(std::string("photo/") + name, file.readAll().toStdString());
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

void MainWindow::say(const QString& text, bool trouble) {
    if (start_ && pages_->currentWidget() == start_) start_->tell(trouble ? text : QString());
    status_->setText(text);
    status_->setToolTip(text);
    status_->setStyleSheet(QStringLiteral("color: %1").arg((trouble ? theme::colours().madder : theme::colours().pencil).name()));
}

QString MainWindow::said() const { return status_->text(); }

void MainWindow::show_step() {
    const Step s = session_.step();
    const auto it = std::find_if(steps_.begin(), steps_.end(), [&](const auto& v) { return v->step() == s; });
    if (it == steps_.end()) return;
    view_ = it->get();
    rack_row_->setVisible(s == step_key::rack);
    tape_->hide();
    bench_->set_plan_only(false);
    show_middle();
    bench_->set_step_view(view_);
    slip_->set_step_view(view_);
    if (!session_.unsaved() && session_.is_open()) say({});
}

/// The keys go to the bench, or to the first way in where the rack is bare.
void MainWindow::keys_to_work() {
    show_middle();
    (middle_->currentIndex() == 2 ? middle_->currentWidget() : bench_)->setFocus();
}

/// The bench, the sheet, or – while nothing stands on the rack – the ways a slab comes in.
void MainWindow::show_middle() {
    const auto stands = [](const auto& entry) { return !entry.second.retired; };
    const bool bare = session_.is_open() && std::none_of(session_.slabs().begin(), session_.slabs().end(), stands);
    const int page = session_.step() == step_key::sheets ? 1 : bare && session_.step() == step_key::rack ? 2 : 0;
    if (page == middle_->currentIndex()) return;
    middle_->setCurrentIndex(page);
}

void MainWindow::refresh() {
    show_middle();
    const WantedTop* top = session_.top();
    const Units& u = session_.units();
    job_->setText(top ? session_.job_name() : tr("No job yet"));
    const Slab* slab = session_.slab();
    about_->setText(
        slab ? QString::fromStdString(session_.whole() ? yb::render(session_.plan()->title, u) : slab->name) +
                   (top ? QString(" · %1 × %2").arg(in_units(mm(top->length_mm), session_), in_units(mm(top->width_mm), session_))
                        : QString())
             : QString());
    if (const Plan* p = session_.plan()) {
        air_->setText(tr("shop air %1 %2 → wood settles at")
                          .arg(in_units(celsius(p->shop_air.temp_c), session_), in_units(percent(p->shop_air.rh_pct), session_)));
        settles_->setText(in_units(percent(p->shop_settles_pct), session_));
    }
    units_->setText(u.metric_length() ? tr("mm · inch") : tr("inch · mm"));
    undo_->setEnabled(session_.can_undo());
    redo_->setEnabled(session_.can_redo());
    undo_->setToolTip(session_.can_undo() ? tr("Undo: %1 (Ctrl+Z)").arg(session_.undo_label()) : tr("Nothing to undo"));
    redo_->setToolTip(session_.can_redo() ? tr("Redo: %1 (Ctrl+Shift+Z)").arg(session_.redo_label()) : tr("Nothing to redo"));
    try_again_->setVisible(session_.unsaved());
    mend_->setVisible(mend_->isVisible() && mend_->property("shop").toString() == session_.path());
}

void MainWindow::show_grow() {
    if (!grow_) {
        grow_ = new GrowPage(session_);
        pages_->addWidget(grow_);
        connect(grow_, &GrowPage::back, this, [this] { pages_->setCurrentIndex(0); });
        connect(grow_, &GrowPage::saw, this, [this](const LogRecipe& recipe, const SawPlan& plan, const DryPlan& dry) {
            pages_->setCurrentIndex(0);
            bring_log(session_, *work_, recipe, plan, dry, 2, [this](const QString& text) { say(text); });
        });
    }
    pages_->setCurrentWidget(grow_);
}

void MainWindow::show_find_tops() {
    if (!session_.is_open()) return;
    if (!find_tops_) {
        find_tops_ = new FindPage(session_, *pictures_);
        pages_->addWidget(find_tops_);
        connect(find_tops_, &FindPage::back, this, [this] { pages_->setCurrentIndex(0); });
    }
    pages_->setCurrentWidget(find_tops_);
}

QString MainWindow::topic() const {
    const QWidget* page = pages_->currentWidget();
    for (const auto& [of, name] : {std::pair<const QWidget*, const char*>{shop_, "shop"}, {find_tops_, "find"}, {log_, "log"}, {jobs_, "jobs"}, {days_, "days"}, {book_, "book"}, {money_, "money"},
                                   {grow_, "grow"}, {photo_, "photo"}, {start_, "start"}})
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
               : tr("The work itself, to scale: from above, along it, and across at the brass square. Things are handled where they lie: drag them, "
                    "click a measure to type it."),
          [this]() -> QWidget* { return middle_; }},
         {tr("The slip"),
          tr("It speaks of what is picked: one figure large, a few more below. Click any figure and it shows how it was reached. Tab goes from thing "
             "to thing, Esc back to the top."),
          [this]() -> QWidget* { return slip_; }},
         {tr("What comes next"),
          tr("This button always does what it says, from the first slab to the printed sheet. Ctrl+Enter presses it; Ctrl+Z takes anything back."),
          [widget]() -> QWidget* { return widget("next") ? widget("next") : widget("slip_paper"); }},
         {tr("The story stick"), tr("The steps of this job, and between them its operations with their dates. Click a step to go there, or press 1 to 7."),
          [this]() -> QWidget* { return stick_; }},
         {tr("Jobs and the shop"),
          tr("The name opens all jobs (J); S is what belongs to the shop. F1 opens the guide at whatever you look at. There is no saving: all you type is "
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
    if (!jobs_) {
        jobs_ = new JobsPage(session_, *pictures_);
        pages_->addWidget(jobs_);
        connect(jobs_, &JobsPage::back, this, [this] { pages_->setCurrentIndex(0); });
    }
    pages_->setCurrentWidget(jobs_);
}

void MainWindow::show_days() {
    if (!session_.is_open()) return;
    if (!days_) {
        days_ = new DaysPage(session_);
        pages_->addWidget(days_);
        connect(days_, &DaysPage::back, this, [this] { pages_->setCurrentIndex(0); });
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
    if (!book_) {
        book_ = new BookPage(session_, *pictures_);
        pages_->addWidget(book_);
        connect(book_, &BookPage::back, this, [this] { pages_->setCurrentIndex(0); });
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
    if (!money_) {
        money_ = new MoneyPage(session_, *pictures_);
        pages_->addWidget(money_);
        connect(money_, &MoneyPage::back, this, [this] { pages_->setCurrentIndex(0); });
        connect(money_, &MoneyPage::offer_wanted, this, &MainWindow::write_offer);
        connect(money_, &MoneyPage::shopping_wanted, this, &MainWindow::write_shopping);
        connect(money_, &MoneyPage::say, this, &MainWindow::say);
    }
    pages_->setCurrentWidget(money_);
}

void MainWindow::show_log() {
    if (!session_.is_open()) return;
    if (!log_) {
        log_ = new LogPage(session_, *pictures_, *work_);
        pages_->addWidget(log_);
        connect(log_, &LogPage::back, this, [this] { pages_->setCurrentIndex(0); });
        connect(log_, &LogPage::say, this, &MainWindow::say);
    }
    pages_->setCurrentWidget(log_);
}

CardPage* MainWindow::show_card(const QString& card) {
    if (!card_) {
        card_ = new CardPage(session_);
        pages_->addWidget(card_);
        connect(card_, &CardPage::back, this, [this] { pages_->setCurrentIndex(0); });
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

void MainWindow::dragEnterEvent(QDragEnterEvent* e) {
    if (e->mimeData()->hasUrls()) e->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent* e) {
    e->acceptProposedAction();
    for (const QUrl& url : e->mimeData()->urls())
        if (!bring_file(url.toLocalFile()))
            say(tr("%1 is nothing that can be brought in: a shop, a job, a picture, a scan, a drawing or a list of slabs can.")
                    .arg(QFileInfo(url.toLocalFile()).fileName()),
                true);
}

void MainWindow::keyPressEvent(QKeyEvent* e) {
    // From wherever the keys go: back to the top.
    if (e->key() == Qt::Key_Escape && !session_.picked().isEmpty()) return session_.pick({});
    QMainWindow::keyPressEvent(e);
}

void MainWindow::type_tape() {
    session_.set_step(step_key::rack);
    session_.pick({});
    if (!tape_->isVisible())
        for (const Action& a : view_->actions(session_))
            if (a.name == "type_tape") return a.run();
}

void MainWindow::type_dimension() {
    if (bench_->type_dimension()) return;
    // A step without a dimension on the bench: the size of the top is the one that is meant.
    session_.set_step(step_key::lay);
    bench_->repaint();
    bench_->type_dimension();
}

void MainWindow::show_shop() { pages_->setCurrentWidget(shop_); }

QString MainWindow::ask_save(const QString& title, const QString& filter, const QString& name) {
    QString folder = QStandardPaths::writableLocation(QStandardPaths::DocumentsLocation);
    if (folder.isEmpty() || !QFileInfo(folder).isWritable()) folder = QDir::homePath();
    return QFileDialog::getSaveFileName(this, title, name.isEmpty() ? QString() : folder + "/" + QString(name).replace('/', '-'), filter);
}

}  // namespace yb
