#include "app/main_window.h"

#include "app/file_trouble.h"

#include <QApplication>
#include <QDir>
#include <QDropEvent>
#include <QFileDialog>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QLabel>
#include <QMenu>
#include <QMenuBar>
#include <QMimeData>
#include <QPainter>
#include <QPushButton>
#include <QScreen>
#include <QSettings>
#include <QStackedWidget>
#include <QStandardPaths>
#include <QVBoxLayout>

#include "app/application.h"
#include "app/files/bring.h"
#include "app/ground/session/pictures.h"
#include "app/ground/slow/long_work.h"
#include "app/ground/slow/runner.h"
#include "app/ground/theme/theme.h"
#include "app/ground/words.h"
#include "app/kit/bench/bench.h"
#include "app/kit/slip/slip.h"
#include "app/kit/step_views.h"
#include "app/kit/stick/stick.h"
#include "app/pages/book/learning.h"
#include "app/pages/find/find_panel.h"
#include "app/pages/shop/shop_page.h"
#include "app/pages/start/start_page.h"
#include "app/pages/start/ways_in.h"
#include "app/steps/rack/rack_row.h"
#include "app/steps/rack/tape_panel.h"
#include "app/steps/sheets/sheet.h"
#include "core/shop/edit/shop_edits.h"
#include "core/shop/job/documents.h"

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
    auto* whole = new QWidget;
    auto* above = new QVBoxLayout(whole);
    above->setContentsMargins(0, 0, 0, 0);
    above->setSpacing(0);
    file_trouble_ = new FileTrouble(session_);
    connect(file_trouble_, &FileTrouble::copy_wanted, this, &MainWindow::save_copy);
    connect(file_trouble_, &FileTrouble::take_wanted, this, &MainWindow::take_what_is_there);
    connect(pages_, &QStackedWidget::currentChanged, this, [this](int page) { file_trouble_->refresh(page != 0); });
    above->addWidget(file_trouble_);
    above->addWidget(pages_, 1);
    setCentralWidget(whole);
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
    keep_copy_ = plain(tr("save a copy"), "keep_copy", top);
    connect(keep_copy_, &QPushButton::clicked, this, &MainWindow::save_copy);
    take_there_ = plain(tr("open what is there"), "take_there", top);
    connect(take_there_, &QPushButton::clicked, this, &MainWindow::take_what_is_there);
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
    for (QPushButton* b : {try_again_, keep_copy_, take_there_}) row->addWidget(b);
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
    if (!session_.unsaved() && !session_.away() && session_.is_open()) say({});
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
        const StepAir air = p->air_of(session_.step());
        air_->setText(tr("shop air %1 %2 → wood settles at")
                          .arg(in_units(celsius(air.day.temp_c), session_), in_units(percent(air.day.rh_pct), session_)));
        settles_->setText(in_units(percent(air.settles_pct()), session_));
    }
    units_->setText(u.metric_length() ? tr("mm · inch") : tr("inch · mm"));
    undo_->setEnabled(session_.can_undo());
    redo_->setEnabled(session_.can_redo());
    undo_->setToolTip(session_.can_undo() ? tr("Undo: %1 (Ctrl+Z)").arg(session_.undo_label()) : tr("Nothing to undo"));
    redo_->setToolTip(session_.can_redo() ? tr("Redo: %1 (Ctrl+Shift+Z)").arg(session_.redo_label()) : tr("Nothing to redo"));
    try_again_->setVisible(session_.unsaved());
    keep_copy_->setVisible(session_.unsaved() || session_.away());
    take_there_->setVisible(session_.other_there());
    file_trouble_->refresh(pages_->currentIndex() != 0);
    mend_->setVisible(mend_->isVisible() && mend_->property("shop").toString() == session_.path());
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
    return QFileDialog::getSaveFileName(this, title, name.isEmpty() ? QString() : folder + "/" + QString(name).replace('/', '-'), filter,
                                        nullptr, QFileDialog::ReadOnly);
}

}  // namespace yb
