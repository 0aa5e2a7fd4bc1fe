#include "app/pages/grow/grow_page.h"

#include <QComboBox>
#include <QGridLayout>
#include <QLabel>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <QPushButton>
#include <QTimer>

#include <array>
#include <cmath>
#include <numbers>

#include "app/ground/theme/theme.h"
#include "app/ground/words.h"
#include "app/kit/fields/measure_field.h"
#include "core/material/wood/wood.h"

namespace yb {

namespace {
constexpr std::array saw_thicknesses{45.0, 55.0, 65.0, 80.0, 100.0};
}

LogEnd::LogEnd(QWidget* parent) : QWidget(parent) {
    setObjectName("log_end");
    setMinimumSize(420, 420);
    setCursor(Qt::OpenHandCursor);
    setToolTip(tr("Drag around the log to turn it on the mill, drag its middle up or down to shift the cuts"));
}

void LogEnd::show_log(std::shared_ptr<const GrownLog> log, const SawPlan& plan) {
    log_ = std::move(log);
    plan_ = plan;
    boards_ = boards_of(*log_, plan_);
    update();
}

double LogEnd::scale() const {
    const LogRecipe& r = log_->recipe();
    return std::min(width(), height()) / (r.butt_mm + 2 * r.flare_mm + 2 * r.bark_mm + 60);
}

QPointF LogEnd::px(double y, double z) const {
    const Vec2 c = log_->pith(log_->recipe().length_mm / 2);
    return {width() / 2.0 + (y - c.x) * scale(), height() / 2.0 - (z - c.y) * scale()};
}

void LogEnd::paintEvent(QPaintEvent*) {
    if (!log_) return;
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const auto& c = theme::colours();
    const LogRecipe& r = log_->recipe();
    const double x = r.length_mm / 2;
    const Vec2 pith = log_->pith(x);
    const WoodLook look = look_of(r.species);
    const auto colour = [](const std::array<double, 3>& v) {
        return QColor(static_cast<int>(v[0]), static_cast<int>(v[1]), static_cast<int>(v[2]));
    };
    const auto level = [&](double share, double beyond) {
        QPolygonF out;
        for (int i = 0; i < 180; ++i) {
            const double a = (i - 90) * 2 * std::numbers::pi / 180;
            const double radius = log_->radius(x, std::remainder(a, 2 * std::numbers::pi)) * share + beyond;
            out << px(pith.x + radius * std::cos(a), pith.y + radius * std::sin(a));
        }
        return out;
    };
    p.setPen(Qt::NoPen);
    p.setBrush(colour(look.bark));
    p.drawPolygon(level(1, r.bark_mm));
    p.setBrush(colour(look.sap));
    p.drawPolygon(level(1, 0));
    p.setBrush(colour(look.heart));
    p.drawPolygon(level(std::max(0.1, 1 - look.sap_years / r.years), 0));
    QColor line = colour(look.late);
    line.setAlpha(120);
    p.setPen(QPen(line, 0.8));
    p.setBrush(Qt::NoBrush);
    for (int i = 1; i < r.years; i += 2) p.drawPolygon(level(static_cast<double>(i) / r.years, 0));
    // Boards that will be kept, numbered from the lowest.
    for (const Board& b : boards_) {
        const auto corner = [&](double y, double z) {
            const Vec3 q = b.in_log(std::clamp(x, b.x0, b.x1), y, z);
            return px(q.y, q.z);
        };
        double low = 1e9;
        double high = -1e9;
        const double reach = r.butt_mm;
        for (double y = std::max(-reach, b.y_low); y < std::min(reach, b.y_high); y += 6)
            for (const double z : {0.0, b.thickness_mm})
                if (log_->inside(b.in_log(x, y, z))) low = std::min(low, y), high = std::max(high, y);
        if (high <= low) continue;
        QColor veil = c.slip;
        veil.setAlpha(70);
        p.setBrush(veil);
        p.setPen(QPen(c.chalk, 1.6));
        p.drawPolygon(QPolygonF{corner(low, 0), corner(high, 0), corner(high, b.thickness_mm), corner(low, b.thickness_mm)});
        p.setFont(theme::figures(10));
        p.setPen(c.ink);
        p.drawText(QRectF(corner((low + high) / 2, b.thickness_mm / 2) - QPointF(14, 10), QSizeF(28, 20)), Qt::AlignCenter,
                   QString::number(b.number));
    }
}

void LogEnd::mousePressEvent(QMouseEvent* e) {
    from_ = e->position();
    near_middle_ = QLineF(from_, rect().center()).length() < 0.25 * std::min(width(), height());
}

void LogEnd::mouseMoveEvent(QMouseEvent* e) {
    if (!log_ || !(e->buttons() & Qt::LeftButton)) return;
    const QPointF middle = rect().center();
    const QPointF to = e->position();
    if (near_middle_) Q_EMIT dragged(0, (from_.y() - to.y()) / scale());
    else Q_EMIT dragged(-std::remainder(QLineF(middle, to).angleTo(QLineF(middle, from_)), 360), 0);
    from_ = to;
}

GrowPage::GrowPage(Session& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      end_(new LogEnd),
      wood_(new QComboBox),
      pattern_(new QComboBox),
      stem_(new QComboBox),
      about_(new QLabel),
      saw_(new QPushButton),
      slow_(
          this,
          [](const Asked& a, const Work& w) {
              return saw_ways(GrownLog(a.recipe), {saw_thicknesses.begin(), saw_thicknesses.end()}, a.kerf_mm, a.moisture_pct, w);
          },
          [this](const Asked&, const std::vector<SawWay>& ways) { show_ways(ways); }) {
    setObjectName("grow_page");
    plan_.thickness_mm = 60;
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(40, 24, 40, 24);
    row->setSpacing(40);
    row->addWidget(end_, 3);
    auto* side = new QVBoxLayout;
    auto* title = new QLabel(tr("A log to saw"));
    title->setFont(theme::figures(20));
    side->addWidget(title);
    auto* what = new QLabel(
        tr("Your own by what you measured, or one to practise on: what you leave empty is drawn by lot. Turn it on the mill, choose "
           "how it is sawn, and its slabs stand on your rack."));
    what->setWordWrap(true);
    side->addWidget(what);
    side->addSpacing(8);
    auto* grid = new QGridLayout;
    int line = 0;
    const auto put = [&](const QString& label, QWidget* w) {
        grid->addWidget(new QLabel(label), line, 0);
        w->setAccessibleName(label);
        grid->addWidget(w, line++, 1);
    };
    for (const Species& s : all_species()) wood_->addItem(told(s.name), QString::fromStdString(s.name));
    wood_->setObjectName("grow_wood");
    wood_->setCurrentIndex(wood_->findData("sycamore, American"));
    put(tr("Wood"), wood_);
    pattern_->setObjectName("grow_pattern");
    pattern_->addItems({tr("through and through"), tr("quartered"), tr("cant, then boards"), tr("rounds across")});
    put(tr("Sawn"), pattern_);
    stem_->setObjectName("grow_stem");
    stem_->addItems({tr("one stem"), tr("forked, with a crotch")});
    put(tr("Stem"), stem_);
    connect(stem_, &QComboBox::activated, this, &GrowPage::grow);
    const auto number = [&](const QString& name, const QString& label, Kind kind, double low, double high,
                            std::function<std::optional<double>()> get, std::function<void(std::optional<double>)> set) {
        auto* field = new MeasureField(name, kind);
        field->set_range(low, high);
        put(label, field);
        fields_.emplace_back(field, get);
        connect(field, &MeasureField::committed, this, [this, set](std::optional<double> v) {
            set(v);
            grow();
        });
    };
    const auto given = [&](const QString& name, const QString& label, Kind kind, double low, double high, double& v) {
        number(
            name, label, kind, low, high, [&v] { return std::optional(v); }, [&v](std::optional<double> typed) { v = typed.value_or(v); });
    };
    const auto drawn = [&](const QString& name, const QString& label, double low, double high, std::optional<double>& v) {
        number(
            name, label, Kind::length, low, high, [&v] { return v; }, [&v](std::optional<double> typed) { v = typed; });
    };
    given("grow_length", tr("Length"), Kind::length, 500, 8000, measured_.length_mm);
    given("grow_butt", tr("Diameter, butt"), Kind::length, 150, 1600, measured_.butt_mm);
    drawn("grow_top", tr("Diameter, top"), 100, 1600, measured_.top_mm);
    drawn("grow_sweep", tr("Sweep over its length"), 0, 600, measured_.sweep_mm);
    drawn("grow_pith", tr("Pith off the middle"), 0, 400, measured_.pith_off_mm);
    given("grow_thickness", tr("Slabs, thick"), Kind::fine, 15, 200, plan_.thickness_mm);
    given("grow_kerf", tr("Kerf"), Kind::fine, 0, 15, plan_.kerf_mm);
    given("grow_turn", tr("Turned on the mill"), Kind::angle, -360, 360, plan_.turn_deg);
    given("grow_moisture", tr("Dried to"), Kind::percent, 4, 30, moisture_);
    number(
        "grow_seed", tr("Drawn by lot: number"), Kind::count, 1, 1e6, [this] { return std::optional(static_cast<double>(seed_)); },
        [this](std::optional<double> v) { seed_ = static_cast<std::uint64_t>(v.value_or(static_cast<double>(seed_))); });
    // A box of its own: beside words that wrap, a layout would press its lines together.
    auto* lines = new QWidget;
    grid->setContentsMargins(0, 0, 0, 0);
    grid->setVerticalSpacing(4);
    lines->setLayout(grid);
    lines->setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Fixed);
    side->addWidget(lines);
    // A line a thickness, each a way to saw it: the best of four.
    for (std::size_t k = 0; k < saw_thicknesses.size(); ++k) {
        auto* way = new QPushButton;
        way->setObjectName(QString("saw_way_%1").arg(k + 1));
        way->setProperty("plain", true);
        way->setEnabled(false);
        ways_.push_back(way);
        side->addWidget(way);
    }
    about_->setObjectName("grow_about");
    about_->setWordWrap(true);
    about_->setFont(theme::figures(12));
    side->addWidget(about_);
    saw_->setObjectName("grow_saw");
    saw_->setProperty("next", true);
    saw_->setText(tr("Saw it"));
    side->addWidget(saw_);
    auto* leave = new QPushButton(tr("Back to the bench"));
    leave->setObjectName("grow_back");
    leave->setProperty("quiet", true);
    side->addWidget(leave);
    side->addStretch(1);
    row->addLayout(side, 2);
    connect(leave, &QPushButton::clicked, this, &GrowPage::back);
    connect(wood_, &QComboBox::activated, this, &GrowPage::grow);
    connect(pattern_, &QComboBox::activated, this, [this](int i) {
        plan_.pattern = static_cast<SawPattern>(i);
        refresh();
    });
    connect(end_, &LogEnd::dragged, this, [this](double turn, double shift) {
        plan_.turn_deg = std::remainder(plan_.turn_deg + turn, 360);
        plan_.shift_mm = std::fmod(plan_.shift_mm + shift, plan_.thickness_mm + plan_.kerf_mm);
        refresh();
    });
    connect(saw_, &QPushButton::clicked, this, [this] {
        DryPlan dry;
        dry.moisture_pct = moisture_;
        dry.keep_truth = true;
        if (!log_) grow();
        Q_EMIT saw(log_->recipe(), plan_, dry);
    });
}

void GrowPage::grow() {
    LogRecipe recipe = measured_recipe(seed_, wood_->currentData().toString().toStdString(), measured_);
    if (stem_->currentIndex() == 1) add_fork(recipe);
    log_ = std::make_shared<GrownLog>(recipe);
    refresh();
}

void GrowPage::show_ways(const std::vector<SawWay>& all) {
    const auto told_as = [&](Quantity q) { return QString::fromStdString(format(q, session_.units())); };
    for (std::size_t k = 0; k < ways_.size() && k < all.size(); ++k) {
        const SawWay& way = all[k];
        ways_[k]->setText(way.straight_mm > 0 ? tr("%1: %2 slabs, straight to %3, %4 m² in all, finishes at %5")
                                                    .arg(told_as(fine(way.plan.thickness_mm)))
                                                    .arg(way.boards)
                                                    .arg(told_as(mm(way.straight_mm)), QString::number(way.usable_m2, 'f', 1),
                                                         told_as(fine(way.finishes_mm)))
                                              : tr("%1: no straight top runs its length").arg(told_as(fine(way.plan.thickness_mm))));
        ways_[k]->setToolTip(
            tr("%1, %2; %n of them hold pith. Estimates: the inside of a log is seen when it is sawn.", nullptr, way.with_pith)
                .arg(way.sweep_lies ? tr("Its sweep lying: slabs bend edgewise, and stay flat")
                                    : tr("Its sweep standing: slabs are straight, and bow"),
                     way.pith_boxed ? tr("the pith in the middle of one slab") : tr("a cut along the pith")));
        ways_[k]->setEnabled(way.boards > 0);
        ways_[k]->disconnect(this);
        connect(ways_[k], &QPushButton::clicked, this, [this, plan = way.plan] {
            plan_ = plan;
            pattern_->setCurrentIndex(static_cast<int>(plan.pattern));
            refresh();
        });
    }
}

void GrowPage::refresh() {
    if (!log_) return grow();
    for (const auto& [field, get] : fields_) field->show_value(get(), session_.units());
    end_->show_log(log_, plan_);
    const auto n = boards_of(*log_, plan_).size();
    about_->setText(n ? tr("%1 slabs of %2, %3 years old")
                            .arg(n)
                            .arg(QString::fromStdString(format(fine(plan_.thickness_mm), session_.units())))
                            .arg(log_->recipe().years)
                      : tr("No board of it is wide enough to keep."));
    saw_->setEnabled(n > 0);
    if (!isVisible()) return;
    const Asked asked{log_->recipe(), plan_.kerf_mm, moisture_};
    if (slow_.at_hand(asked)) return;
    for (std::size_t k = 0; k < ways_.size(); ++k)
        ways_[k]->setText(tr("%1: …").arg(QString::fromStdString(format(fine(saw_thicknesses[k]), session_.units()))));
    slow_.ask(asked);
}

void GrowPage::showEvent(QShowEvent* e) {
    QWidget::showEvent(e);
    // The page stands first, its log a moment later.
    QTimer::singleShot(0, this, &GrowPage::refresh);
}

}  // namespace yb
