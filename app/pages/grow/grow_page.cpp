#include "app/pages/grow/grow_page.h"

#include <QComboBox>
#include <QGridLayout>
#include <QLabel>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <QPushButton>

#include <numbers>
#include <cmath>

#include "app/kit/fields/measure_field.h"
#include "app/ground/theme/theme.h"
#include "app/ground/words.h"
#include "core/material/wood/wood.h"

namespace yb {

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
      saw_(new QPushButton) {
    setObjectName("grow_page");
    plan_.thickness_mm = 60;
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(40, 24, 40, 24);
    row->setSpacing(40);
    row->addWidget(end_, 3);
    auto* side = new QVBoxLayout;
    auto* title = new QLabel(tr("A practice log"));
    title->setFont(theme::figures(20));
    side->addWidget(title);
    auto* what =
        new QLabel(tr("It grows by numbers, the same every time for the same number. Turn it on the mill, choose how it is sawn, and its "
                      "slabs stand on your rack: knots, rings, cracks and all."));
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
    const auto number = [&](const QString& name, const QString& label, Kind kind, double low, double high, std::function<double()> get,
                            std::function<void(double)> set) {
        auto* field = new MeasureField(name, kind);
        field->set_range(low, high);
        put(label, field);
        fields_.emplace_back(field, get);
        connect(field, &MeasureField::committed, this, [this, set](std::optional<double> v) {
            if (v) set(*v);
            grow();
        });
    };
    number(
        "grow_seed", tr("Number of the log"), Kind::count, 1, 1e6, [this] { return static_cast<double>(seed_); },
        [this](double v) { seed_ = static_cast<std::uint64_t>(v); });
    number(
        "grow_length", tr("Length"), Kind::length, 500, 8000, [this] { return length_mm_; }, [this](double v) { length_mm_ = v; });
    number(
        "grow_butt", tr("Diameter, butt"), Kind::length, 150, 1600, [this] { return butt_mm_; }, [this](double v) { butt_mm_ = v; });
    number(
        "grow_thickness", tr("Slabs, thick"), Kind::fine, 15, 200, [this] { return plan_.thickness_mm; },
        [this](double v) { plan_.thickness_mm = v; });
    number(
        "grow_kerf", tr("Kerf"), Kind::fine, 0, 15, [this] { return plan_.kerf_mm; }, [this](double v) { plan_.kerf_mm = v; });
    number(
        "grow_turn", tr("Turned on the mill"), Kind::angle, -360, 360, [this] { return plan_.turn_deg; },
        [this](double v) { plan_.turn_deg = v; });
    number(
        "grow_moisture", tr("Dried to"), Kind::percent, 4, 30, [this] { return moisture_; }, [this](double v) { moisture_ = v; });
    // A box of its own: beside words that wrap, a layout would press its lines together.
    auto* lines = new QWidget;
    grid->setContentsMargins(0, 0, 0, 0);
    grid->setVerticalSpacing(4);
    lines->setLayout(grid);
    lines->setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Fixed);
    side->addWidget(lines);
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
        Q_EMIT saw(log_->recipe(), plan_, dry);
    });
    grow();
}

void GrowPage::grow() {
    LogRecipe recipe = drawn_recipe(seed_, wood_->currentData().toString().toStdString(), length_mm_, butt_mm_);
    if (stem_->currentIndex() == 1) add_fork(recipe);
    log_ = std::make_shared<GrownLog>(recipe);
    refresh();
}

void GrowPage::refresh() {
    for (const auto& [field, get] : fields_) field->show_value(get(), session_.units());
    end_->show_log(log_, plan_);
    const auto n = boards_of(*log_, plan_).size();
    about_->setText(n ? tr("%1 slabs of %2, %3 years old")
                            .arg(n)
                            .arg(QString::fromStdString(format(fine(plan_.thickness_mm), session_.units())))
                            .arg(log_->recipe().years)
                      : tr("No board of it is wide enough to keep."));
    saw_->setEnabled(n > 0);
}

}  // namespace yb
