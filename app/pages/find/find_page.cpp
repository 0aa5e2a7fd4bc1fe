#include "app/pages/find/find_page.h"

#include <QPointer>

#include <QApplication>
#include <QCheckBox>
#include <QDate>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QPainter>
#include <QPushButton>
#include <QScrollArea>
#include <QSlider>
#include <QVBoxLayout>

#include "app/ground/session/pictures.h"
#include "app/ground/theme/theme.h"
#include "app/ground/words.h"
#include "app/kit/fields/field_form.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/steps/fill/fill.h"

namespace yb {

Ticket::Ticket(Session& session, TopPicture& tops, Found found, Boards boards, const WantedTop& top, QWidget* parent)
    : QAbstractButton(parent), session_(session), tops_(tops), found_(std::move(found)), boards_(std::move(boards)), top_(top) {
    setCursor(Qt::PointingHandCursor);
    setFocusPolicy(Qt::StrongFocus);
    QStringList names;
    for (const std::string& id : found_.slabs)
        if (const auto it = boards_.find(id); it != boards_.end()) names << QString::fromStdString(it->second->up.name);
    QString kind = found_.kind == MakeUp::boards ? tr("%1 boards").arg(found_.slabs.size()) : told(name_of(found_.kind));
    kind[0] = kind[0].toUpper();
    setText(tr("%1 · %2").arg(kind, names.join(" + ")));
    setAccessibleName(text());
    setToolTip(tr("Take it into the job; undo brings back what was"));
    pin_ = new QPushButton(this);
    pin_->setProperty("plain", true);
    pin_->setCursor(Qt::PointingHandCursor);
    pin_->setFont(theme::text(9.5));
    connect(pin_, &QPushButton::clicked, this, [this] { Q_EMIT pin(!pinned_); });
    set_pinned(false);
}

/// Words in as many lines as they need; what has no room is left out whole. @returns how tall they are.
static double wrapped(QPainter& p, const QRectF& room, const QString& text) {
    const QRectF box = p.boundingRect(QRectF(room.topLeft(), QSizeF(room.width(), 1e4)), Qt::TextWordWrap, text);
    if (box.height() > room.height() + 1) return 0;
    p.drawText(room, Qt::TextWordWrap, text);
    return box.height();
}

void Ticket::set_pinned(bool pinned) {
    pinned_ = pinned;
    pin_->setText(pinned ? tr("let go") : tr("pin"));
    pin_->setToolTip(pinned ? tr("Off the pins") : tr("Keep it in sight, beside two others"));
    pin_->setObjectName((pinned ? "let_go_" : "pin_") + objectName());
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    updateGeometry();
    update();
}

QSize Ticket::sizeHint() const { return pinned_ ? QSize(240, theme::grown(300)) : QSize(600, theme::grown(168)); }

void Ticket::resizeEvent(QResizeEvent*) {
    pin_->adjustSize();
    pin_->move(width() - pin_->width() - 8, 6);
}

SmallTop Ticket::small() const {
    SmallTop out{top_, found_.kind, found_.narrowest_mm, found_.fits, {}, found_.joints};
    for (std::size_t i = 0; i < found_.slabs.size(); ++i)
        if (const auto it = boards_.find(found_.slabs[i]); it != boards_.end()) {
            const bool over = found_.placements[i].turned_over;
            out.leaves.push_back({&it->second->slab(over), &it->second->shape(over), found_.placements[i]});
        }
    return out;
}

void Ticket::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const auto& c = theme::colours();
    const QRectF all = QRectF(rect()).adjusted(1, 1, -1, -1);
    p.setPen(QPen(hasFocus() || underMouse() ? c.brass : c.rule, hasFocus() ? 2 : 1));
    p.setBrush(c.slip);
    p.drawRoundedRect(all, 2, 2);
    // The finished top: beside what is said of it, or above where it is pinned.
    const QRectF box = pinned_ ? QRectF(12, theme::grown(26), all.width() - 24, theme::grown(96))
                               : QRectF(14, 12, all.width() * 0.5 - 20, all.height() - 24);
    draw_small_top(p, box, tops_, small(), devicePixelRatioF());
    // What it is and what it gives.
    const double x = pinned_ ? 12 : all.width() * 0.5 + 6;
    const double w = all.width() - x - 12;
    double y = pinned_ ? box.bottom() + 6 : 10;
    const auto line = [&](const QString& text, const QFont& font, const QColor& ink, double wide) {
        p.setFont(font);
        p.setPen(ink);
        y += wrapped(p, {x, y, wide, all.bottom() - 6 - y}, text);
    };
    line(text(), theme::text(10.5, true), c.ink, pinned_ ? w : w - pin_->width());
    y += 2;
    const auto in = [&](Quantity q) { return QString::fromStdString(format(q, session_.units())); };
    line(found_.fits ? tr("%1 thick, %2 at the narrowest").arg(in(fine(found_.thickness_mm)), in(mm(found_.narrowest_mm)))
                     : tr("short by %1").arg(in(mm(found_.lack_mm))),
         theme::figures(pinned_ ? 11 : 13), found_.fits ? c.ink : c.madder, w);
    y += 2;
    // Beside one another on a ticket, below one another on a pin: so that pins are read line by line.
    const double column = pinned_ ? w : w / 2;
    const double top = y;
    const auto list = [&](const std::vector<Phrase>& phrases, double left, const QColor& ink, const QString& sign) {
        if (!pinned_) y = top;
        for (const Phrase& ph : phrases) {
            p.setFont(theme::text(9.5));
            p.setPen(c.ink);
            const double h =
                wrapped(p, {x + left + 16, y, column - 22, all.bottom() - 4 - y}, QString::fromStdString(yb::render(ph, session_.units())));
            if (h == 0) break;
            p.setPen(ink);
            p.drawText(QRectF(x + left, y, 14, QFontMetricsF(p.font()).height()), Qt::AlignCenter, sign);
            y += h + 1;
        }
    };
    list(found_.gains, 0, c.moss, "+");
    list(found_.costs, pinned_ ? 0 : column, c.madder, QString::fromUtf8("–"));
}

FindPage::FindPage(Session& session, Pictures& pictures, QWidget* parent)
    : QWidget(parent),
      session_(session),
      tops_(pictures, [this] { paint_tickets(); }),
      about_(new QLabel),
      stop_(new QPushButton(tr("stop looking"))) {
    setObjectName("find_page");
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(24, 16, 24, 12);
    row->setSpacing(24);
    auto* side = new QVBoxLayout;
    auto* title = new QLabel(tr("What could be made"));
    title->setFont(theme::figures(16));
    side->addWidget(title);
    about_->setObjectName("find_about");
    about_->setWordWrap(true);
    side->addWidget(about_);
    stop_->setObjectName("find_stop");
    stop_->setProperty("plain", true);
    stop_->hide();
    connect(stop_, &QPushButton::clicked, this, [this] {
        if (searching_) searching_->stop.request_stop();
        busy_ = false;
        stop_->hide();
        about_->setText(tr("Stopped: these are the best so far."));
    });
    side->addWidget(stop_, 0, Qt::AlignLeft);
    form_ = new FieldForm(
        session, {}, {},
        {wanted("top.length_mm", "find_length", &WantedTop::length_mm), wanted("top.width_mm", "find_width", &WantedTop::width_mm),
         wanted("top.thickness_mm", "find_thickness", &WantedTop::thickness_mm),
         job_number("makeup.river_mm", "find_river", tr("River, if any"))});
    side->addWidget(form_);
    auto* kinds = new QGridLayout;
    int n = 0;
    for (const auto& [name, label] : {std::pair("find_singles", tr("one slab")), std::pair("find_pairs", tr("pairs")),
                                      std::pair("find_boards", tr("three, four boards")), std::pair("find_rivers", tr("rivers"))}) {
        auto* box = new QCheckBox(label);
        box->setObjectName(name);
        box->setChecked(true);
        connect(box, &QCheckBox::toggled, &pause_, qOverload<>(&QTimer::start));
        kinds->addWidget(box, n / 2, n % 2);
        ++n;
        kinds_[name] = box;
    }
    side->addLayout(kinds);
    auto* what = new QLabel(tr("What matters"));
    what->setFont(theme::text(9.5, true));
    side->addWidget(what);
    auto* grid = new QGridLayout;
    grid->setVerticalSpacing(2);
    n = 0;
    const FindWeights w;
    for (const auto& [name, label, start] :
         {std::tuple("weigh_thickness", tr("thickness"), w.thickness), std::tuple("weigh_waste", tr("little waste"), w.waste),
          std::tuple("weigh_likeness", tr("the figure meets"), w.likeness), std::tuple("weigh_flaws", tr("few flaws"), w.flaws),
          std::tuple("weigh_resin", tr("little resin"), w.resin), std::tuple("weigh_weight", tr("light"), w.weight),
          std::tuple("weigh_moisture", tr("dry"), w.moisture), std::tuple("weigh_money", tr("cheap"), w.money)}) {
        auto* s = new QSlider(Qt::Horizontal);
        s->setObjectName(name);
        s->setRange(0, 10);
        s->setValue(static_cast<int>(std::lround(start * 10)));
        s->setAccessibleName(tr("How much it matters: %1").arg(label));
        connect(s, &QSlider::valueChanged, &pause_, qOverload<>(&QTimer::start));
        grid->addWidget(new QLabel(label), n, 0);
        grid->addWidget(s, n++, 1);
        sliders_[name] = s;
    }
    side->addLayout(grid);
    side->addStretch(1);
    auto* leave = new QPushButton(tr("Back to the bench"));
    leave->setObjectName("find_back");
    leave->setProperty("quiet", true);
    connect(leave, &QPushButton::clicked, this, &FindPage::back);
    side->addWidget(leave);
    auto* panel = new QWidget;
    panel->setLayout(side);
    panel->setFixedWidth(theme::grown(290));
    row->addWidget(panel);
    auto* scroll = new QScrollArea;
    scroll->setObjectName("find_results");
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    auto* page = new QWidget;
    list_ = new QVBoxLayout(page);
    list_->setContentsMargins(0, 0, 8, 0);
    list_->setSpacing(8);
    list_->addStretch(1);
    scroll->setWidget(page);
    auto* found = new QVBoxLayout;
    pins_row_ = new QHBoxLayout;
    pins_row_->setSpacing(8);
    found->addLayout(pins_row_);
    found->addWidget(scroll, 1);
    row->addLayout(found, 1);
    pause_.setSingleShot(true);
    pause_.setInterval(150);
    connect(&pause_, &QTimer::timeout, this, &FindPage::search);
    connect(&session_, &Session::changed, this, [this] {
        form_->show_values();
        if (isVisible()) pause_.start();
    });
    connect(&pictures, &Pictures::arrived, this, [this](const QString& key) {
        tops_.forget(key);
        paint_tickets();
    });
}

void FindPage::showEvent(QShowEvent* e) {
    QWidget::showEvent(e);
    form_->show_values();
    search();
}

/// A measure of the wanted top: the job's, or – before there is a job – the page's own.
Field FindPage::wanted(const char* path, const QString& name, double WantedTop::*what) {
    Field f = job_number(path, name);
    f.get = [this, job = f.get, what](const Session& s) { return s.job() ? job(s) : std::optional(first_.*what); };
    f.set = [this, job = f.set, what](Session& s, std::optional<double> v) {
        if (s.job()) return job(s, v);
        if (v) first_.*what = *v;
        form_->show_values();
        pause_.start();
    };
    return f;
}

FindOrder FindPage::order() const {
    FindOrder o = session_.job() ? find_order(*session_.job(), session_.shop()) : FindOrder();
    if (!session_.job()) o.top = first_;
    const auto w = [&](const char* name) { return sliders_.at(name)->value() / 10.0; };
    o.weights = {w("weigh_thickness"), w("weigh_waste"),  w("weigh_likeness"), w("weigh_flaws"),
                 w("weigh_resin"),     w("weigh_weight"), w("weigh_moisture"), w("weigh_money")};
    o.singles = kinds_.at("find_singles")->isChecked();
    o.pairs = kinds_.at("find_pairs")->isChecked();
    o.boards = kinds_.at("find_boards")->isChecked();
    o.rivers = kinds_.at("find_rivers")->isChecked();
    return o;
}

void FindPage::search() {
    if (searching_) searching_->stop.request_stop();
    busy_ = true;
    begun_ = session_.begun();
    stop_->show();
    about_->setText(tr("Looking through %1 slabs…").arg(session_.slabs().size()));
    searching_ = run_beside(
        this,
        [this, self = QPointer<FindPage>(this), docs = session_.documents(), order = order()](const Work& w) -> std::function<void()> {
            const auto shapes = std::make_shared<Boards>();
            const auto made = [&](const std::vector<Found>& found) {
                for (const Found& f : found)
                    for (const std::string& id : f.slabs)
                        if (auto& b = (*shapes)[id]; !b) b = both_ways(docs.slabs.at(id));
            };
            const auto so_far = [&](const std::vector<Found>& found) {
                made(found);
                QMetaObject::invokeMethod(
                    QCoreApplication::instance(),
                    [page = self, stop = w.stop, found, boards = *shapes, top = order.top] {
                        if (page && !stop.stop_requested() && page->busy_) page->show_found(found, boards, top, false);
                    },
                    Qt::QueuedConnection);
            };
            const auto all = find_tops(docs, order, {{}, w.stop, 0}, so_far);
            made(all);
            return [this, all, shapes, top = order.top] { show_found(all, *shapes, top, true); };
        },
        [this](const QString& sentence) {
            busy_ = false;
            stop_->hide();
            about_->setText(tr("The search came to no end: %1.").arg(sentence));
        });
}

void FindPage::paint_tickets() {
    for (Ticket* t : findChildren<Ticket*>()) t->update();
}

void FindPage::wait() {
    while (busy_ || pause_.isActive()) QApplication::processEvents(QEventLoop::AllEvents, 20);
    tops_.draw_all([this] { grab(); });
}

void FindPage::show_found(const std::vector<Found>& found, const Boards& boards, const WantedTop& top, bool done) {
    busy_ = !done;
    stop_->setVisible(!done);
    const auto fitting = std::count_if(found.begin(), found.end(), [](const Found& f) { return f.fits; });
    about_->setText(!done           ? tr("Still looking; the best so far:")
                    : found.empty() ? tr("Nothing on the rack can be tried: measure a slab first.")
                    : fitting == 0  ? tr("Nothing on the rack gives this top. The nearest:")
                    : fitting == 1  ? tr("One way fits.")
                                    : tr("%1 ways that fit, best first.").arg(fitting));
    for (Ticket* t : findChildren<Ticket*>()) {
        if (t->pinned()) continue;
        list_->removeWidget(t);
        delete t;  // called by the search alone, never by a ticket
    }
    int n = 0;
    for (const Found& f : found) {
        Ticket* t = ticket(f, boards, top);
        t->setObjectName(QStringLiteral("ticket_%1").arg(++n));
        t->set_pinned(false);
        connect(t, &Ticket::pin, this, [this, f, boards, top] { pin(f, boards, top); });
        list_->insertWidget(list_->count() - 1, t);
    }
}

Ticket* FindPage::ticket(const Found& f, const Boards& boards, const WantedTop& top) {
    auto* t = new Ticket(session_, tops_, f, boards, top);
    connect(t, &Ticket::clicked, this, [this, f, top] { take(f, top); });
    return t;
}

/// It was looked for with what a job wants, or is the first job of all: it is laid there.
void FindPage::take(const Found& f, const WantedTop& top) {
    Session::Begun job = begun_;
    if (job.job.empty()) {
        if (!session_.still_open(job, tr("What was found"))) return;
        session_.edit(tr("A job from what was found"), [&](Documents& d) {
            job.job = add_job_on(d, d.slabs.at(f.slabs.front()), QDate::currentDate().toString(Qt::ISODate).toStdString());
            Job& made = d.jobs.at(job.job);
            made.top = top;
            take_find(made, f);
        });
    } else if (!session_.edit_begun(job, tr("Take what was found"), [&](Job& j) { take_find(j, f); })) {
        return;
    }
    session_.set_job(QString::fromStdString(job.job));
    session_.set_leaf(0);
    session_.set_step(step_key::lay);
    Q_EMIT back();
}

/// Three at most stand side by side: the first of them goes for a fourth.
void FindPage::pin(const Found& f, const Boards& boards, const WantedTop& top) {
    constexpr std::size_t most = 3;
    const auto same = [&](const Ticket* t) {
        return t->found().slabs == f.slabs && t->found().kind == f.kind && t->found().placements == f.placements;
    };
    if (std::any_of(pins_.begin(), pins_.end(), same)) return;
    if (pins_.size() == most) let_go(pins_.front());
    Ticket* t = ticket(f, boards, top);
    t->setObjectName(QStringLiteral("pinned_%1").arg(++pinned_));
    t->set_pinned(true);
    connect(t, &Ticket::pin, this, [this, t] { let_go(t); });
    pins_.push_back(t);
    pins_row_->addWidget(t, 1);
}

void FindPage::let_go(Ticket* t) {
    std::erase(pins_, t);
    pins_row_->removeWidget(t);
    t->hide();
    t->deleteLater();
}

}  // namespace yb
