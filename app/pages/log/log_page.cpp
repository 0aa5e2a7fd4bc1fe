#include "app/pages/log/log_page.h"

#include <QCheckBox>
#include <QComboBox>
#include <QGridLayout>
#include <QLabel>
#include <QPainter>
#include <QPushButton>
#include <QVBoxLayout>

#include <set>

#include "app/ground/session/pictures.h"
#include "app/ground/slow/long_work.h"
#include "app/ground/theme/theme.h"
#include "app/kit/bench/wood_face.h"
#include "core/shop/edit/slab_edits.h"

namespace yb {

LogPicture::LogPicture(Pictures& pictures, QWidget* parent) : QWidget(parent), tops_(pictures) {
    connect(&pictures, &Pictures::arrived, this, [this](const QString& key) {
        tops_.forget(key);
        update();
    });
    setObjectName("log_picture");
    setMinimumSize(420, 300);
    setAccessibleName(tr("The log in end view and its slabs in plan, the lowest below"));
}

void LogPicture::show_log(std::vector<std::shared_ptr<const BothWays>> boards, Sequence sequence, double kerf) {
    boards_ = std::move(boards);
    sequence_ = std::move(sequence);
    kerf_mm_ = kerf;
    update();
}

void LogPicture::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const auto& c = theme::colours();
    p.fillRect(rect(), c.bench);
    if (sequence_.places.empty()) {
        p.setFont(theme::figures(14, true));
        p.setPen(c.pencil);
        p.drawText(rect(), Qt::AlignCenter, tr("Choose a tree and put its slabs in order."));
        return;
    }
    double tall = 0;
    double wide = 1;
    double longest = 1;
    for (const SequencePlace& s : sequence_.places) {
        const BothWays& b = *boards_[s.item];
        tall += means_of(b.shape_up).thickness_mm + kerf_mm_;
        const Box box = bounds(b.shape_up.ring_a);
        wide = std::max(wide, box.height());
        longest = std::max(longest, box.width());
    }
    const double end_width = width() * 0.34;
    const double k = std::min((end_width - 50) / wide, (height() - 60) / tall);
    const double plan_left = end_width + 20;
    const double kp =
        std::min((width() - plan_left - 30) / longest, (height() - 60.0) / static_cast<double>(sequence_.places.size()) / wide * 0.76);
    const double row = (height() - 60.0) / static_cast<double>(sequence_.places.size());
    p.setFont(theme::text(10));
    p.setPen(c.pencil);
    p.drawText(QPointF(24, 24), tr("end view, cut across the middle"));
    p.drawText(QPointF(plan_left, 24), tr("from above, each as it lay"));
    double z = height() - 24 - (height() - 60 - tall * k) / 2;
    for (std::size_t i = 0; i < sequence_.places.size(); ++i) {
        const SequencePlace& s = sequence_.places[i];
        const BothWays& b = *boards_[s.item];
        const SlabShape& shape = b.shape(s.over);
        const theme::WoodTone tone = theme::tone_of(b.up.species);
        // As it lay: turned over first, then end for end.
        const double sign = s.ended ? -1 : 1;
        const Box box = bounds(shape.ring_a);
        const Vec2 mid = (box.low + box.high) * 0.5;
        const auto a = cut_at_x(shape.ring_a, mid.x);
        const auto u = cut_at_x(shape.ring_b, mid.x);
        const double thick = means_of(shape).thickness_mm;
        if (!a.empty() && !u.empty()) {
            const auto px = [&](double y, double h) { return QPointF(end_width / 2 + 6 - sign * (y - mid.y) * k, z - h * k); };
            p.setPen(QPen(tone.edge, 1.2));
            p.setBrush(tone.early);
            p.drawPolygon(QPolygonF{px(u.front().from, 0), px(u.back().to, 0), px(a.back().to, thick), px(a.front().from, thick)});
            p.setFont(theme::figures(10));
            p.setPen(c.ink);
            p.drawText(QRectF(px(mid.y, thick).x() - 20, z - thick * k, 40, thick * k), Qt::AlignCenter, QString::number(i + 1));
        }
        z -= (thick + kerf_mm_) * k;
        // From above.
        const double middle_y = height() - 24 - row * (static_cast<double>(i) + 0.5);
        const double left = plan_left + (width() - plan_left - 30) / 2;
        tops_.leaf(p, b.slab(s.over), shape, {mid.x, mid.y, s.ended ? 180.0 : 0.0, s.over, 0}, kp, devicePixelRatioF(), true,
                   [&](Vec2 uv) { return QPointF(left + uv.x * kp, middle_y + 7 - uv.y * kp); });
        p.setFont(theme::text(9.5));
        p.setPen(c.ink);
        p.drawText(QPointF(plan_left, middle_y - row / 2 + 8),
                   QStringLiteral("%1 · %2%3%4")
                       .arg(i + 1)
                       .arg(QString::fromStdString(b.up.name), s.over ? tr(", turned over") : QString(),
                            s.ended ? tr(", end for end") : QString()));
        if (i > 0) {
            // How sure the joint below it is: a bar between the two.
            const double y = middle_y + row / 2;
            p.setPen(QPen(!s.parted || s.confidence < 0.7 ? c.madder : s.confidence < 0.9 ? c.ochre : c.moss, 3));
            p.drawLine(QPointF(width() - 26, y - 10), QPointF(width() - 26, y + 10));
        }
    }
}

LogPage::LogPage(Session& session, Pictures& pictures, LongWork& work, QWidget* parent)
    : QWidget(parent),
      session_(session),
      pictures_(pictures),
      work_(work),
      tree_(new QComboBox),
      about_(new QLabel),
      picture_(new LogPicture(pictures)),
      order_(new QPushButton(tr("Put its slabs in order"))),
      write_(new QPushButton(tr("Write the numbers on the slabs"))) {
    setObjectName("log_page");
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(24, 16, 24, 16);
    row->setSpacing(24);
    row->addWidget(picture_, 1);
    auto* side = new QVBoxLayout;
    auto* title = new QLabel(tr("The log put back together"));
    title->setFont(theme::figures(16));
    title->setWordWrap(true);
    side->addWidget(title);
    auto* what = new QLabel(
        tr("Slabs that nobody numbered are compared face by face: their edges, their knots, and their pictures where there are any."));
    what->setWordWrap(true);
    side->addWidget(what);
    tree_->setObjectName("log_tree");
    tree_->setAccessibleName(tr("Tree"));
    const auto forget = [this] {
        pins_.clear();
        sequence_ = {};
        boards_.clear();
        ids_.clear();
        picture_->show_log({}, {}, 4);
        show_rows();
    };
    connect(tree_, &QComboBox::activated, this, forget);
    connect(&session_, &Session::opened, this, [this, forget] {
        forget();
        list_trees();
    });
    side->addWidget(tree_);
    order_->setObjectName("log_order");
    order_->setProperty("next", true);
    connect(order_, &QPushButton::clicked, this, &LogPage::order);
    side->addWidget(order_);
    about_->setObjectName("log_about");
    about_->setWordWrap(true);
    side->addWidget(about_);
    rows_ = new QGridLayout;
    rows_->setVerticalSpacing(2);
    side->addLayout(rows_);
    write_->setObjectName("log_write");
    write_->setProperty("quiet", true);
    connect(write_, &QPushButton::clicked, this, &LogPage::write_numbers);
    side->addWidget(write_);
    side->addStretch(1);
    auto* leave = new QPushButton(tr("Back to the bench"));
    leave->setObjectName("log_back");
    leave->setProperty("quiet", true);
    connect(leave, &QPushButton::clicked, this, &LogPage::back);
    side->addWidget(leave);
    auto* panel = new QWidget;
    panel->setLayout(side);
    panel->setFixedWidth(theme::grown(320));
    row->addWidget(panel);
    list_trees();
    show_rows();
}

void LogPage::showEvent(QShowEvent* e) {
    QWidget::showEvent(e);
    list_trees();
}

void LogPage::list_trees() {
    std::map<std::string, int> trees;
    for (const auto& [id, s] : session_.slabs())
        if (!s.retired && !s.tree.empty()) ++trees[s.tree];
    const QString now = tree_->currentText();
    tree_->clear();
    for (const auto& [tree, n] : trees)
        if (n > 1) tree_->addItem(QString::fromStdString(tree));
    if (const int i = tree_->findText(now); i >= 0) tree_->setCurrentIndex(i);
    else if (const Slab* s = session_.slab())
        if (const int k = tree_->findText(QString::fromStdString(s->tree)); k >= 0) tree_->setCurrentIndex(k);
    order_->setEnabled(tree_->count() > 0);
    if (tree_->count() == 0) about_->setText(tr("No tree has two slabs on the rack. Say on the rack which slabs come from one tree."));
}

std::vector<std::string> LogPage::ids_of_tree() const {
    std::vector<std::string> ids;
    for (const auto& [id, s] : session_.slabs())
        if (!s.retired && QString::fromStdString(s.tree) == tree_->currentText()) ids.push_back(id);
    return ids;
}

void LogPage::order() {
    ids_ = ids_of_tree();
    const auto known = sequence_;
    const auto before = boards_;
    const double kerf = session_.makeup() ? session_.makeup()->mill_kerf_mm : 4;
    std::vector<Slab> slabs;
    for (const std::string& id : ids_) slabs.push_back(session_.slabs().at(id));
    using Read = std::function<std::optional<Picture>()>;
    std::vector<std::pair<Read, Read>> read;
    for (const Slab& s : slabs)
        read.emplace_back(pictures_.pixels(s.picture_a ? s.picture_a->key : ""), pictures_.pixels(s.picture_b ? s.picture_b->key : ""));
    // What the maker pinned stays where the last order put it.
    std::map<std::string, std::pair<int, SequencePlace>> placed;
    for (std::size_t k = 0; k < known.places.size(); ++k)
        if (known.places[k].item < before.size()) placed[before[known.places[k].item]->up.id] = {static_cast<int>(k), known.places[k]};
    struct Made {
        Sequence sequence;
        std::vector<std::shared_ptr<const BothWays>> boards;
        bool pictures = false;
    };
    work_.run(
        tr("Putting the log together"),
        [slabs, read, placed, kerf, pins = pins_](const Work& w) {
            Made made;
            struct Shown {
                std::optional<Picture> a, b;
            };
            std::vector<Shown> faces(slabs.size());
            in_parallel(slabs.size(), [&](std::size_t i) { faces[i] = {read[i].first(), read[i].second()}; }, {{}, w.stop, 0});
            for (const Slab& s : slabs) made.boards.push_back(both_ways(s));
            std::vector<SequenceItem> items;
            for (std::size_t i = 0; i < slabs.size(); ++i) {
                SequenceItem item{&made.boards[i]->up,
                                  &made.boards[i]->shape_up,
                                  faces[i].a ? &*faces[i].a : nullptr,
                                  faces[i].b ? &*faces[i].b : nullptr,
                                  {},
                                  {},
                                  {}};
                made.pictures = made.pictures || faces[i].a;
                const auto pin = pins.find(slabs[i].id);
                const auto place = placed.find(slabs[i].id);
                if (pin != pins.end() && place != placed.end()) {
                    if (pin->second.place) item.position = place->second.first;
                    if (pin->second.way) item.over = place->second.second.over, item.ended = place->second.second.ended;
                }
                items.push_back(item);
            }
            made.sequence = put_in_order(items, w, kerf);
            return made;
        },
        [this, kerf, begun = session_.begun(), tree = tree_->currentText()](const Made& made) {
            if (!session_.still_open(begun, tr("The order of a log")) || tree_->currentText() != tree) return;
            sequence_ = made.sequence;
            pictures_compared_ = made.pictures;
            boards_ = made.boards;
            picture_->show_log(boards_, sequence_, kerf);
            tell();
            show_rows();
        });
}

void LogPage::tell() {
    QStringList strangers;
    for (const SequencePlace& p : sequence_.places)
        if (p.stranger) strangers += QString::fromStdString(boards_[p.item]->up.name);
    const QString how = pictures_compared_ ? tr("faces compared by their pictures too") : tr("by edges and knots only");
    const double pct = 100 * sequence_.confidence;  // never told as certain
    const QString sure = pct > 99 ? tr("over 99 %") : QString::fromStdString(format(percent(pct), session_.units()));
    const auto n = sequence_.places.size() - static_cast<std::size_t>(strangers.size());
    QString says = tr("%1 slabs in order, the weakest joint %2 sure; %3.").arg(n).arg(sure, how);
    if (!strangers.isEmpty())
        says +=
            QLatin1Char(' ') + tr("No face of the others was parted by the saw from %1: of another log, or their neighbours are missing. "
                                  "They get no number.")
                                   .arg(strangers.join(QStringLiteral(", ")));
    about_->setText(says);
}

void LogPage::show_rows() {
    while (QLayoutItem* item = rows_->takeAt(0)) {
        if (item->widget()) {
            item->widget()->setObjectName({});
            item->widget()->hide();
            item->widget()->deleteLater();
        }
        delete item;
    }
    write_->setVisible(!sequence_.places.empty());
    if (sequence_.places.empty()) return;
    rows_->addWidget(new QLabel(tr("from the top")), 0, 0);
    rows_->addWidget(new QLabel(tr("pin the place")), 0, 1);
    rows_->addWidget(new QLabel(tr("pin the way")), 0, 2);
    int line = 1;
    for (std::size_t k = sequence_.places.size(); k-- > 0;) {
        const Slab& s = boards_[sequence_.places[k].item]->up;
        auto* name = new QLabel(QStringLiteral("%1  %2").arg(k + 1).arg(QString::fromStdString(s.name)));
        name->setObjectName(QStringLiteral("log_row_%1").arg(k + 1));
        rows_->addWidget(name, line, 0);
        for (const bool place : {true, false}) {
            auto* box = new QCheckBox;
            box->setObjectName(QStringLiteral("%1_%2").arg(place ? "pin_place" : "pin_way", QString::fromStdString(s.id)));
            box->setAccessibleName(place ? tr("Pin the place of %1").arg(QString::fromStdString(s.name))
                                         : tr("Pin the way round of %1").arg(QString::fromStdString(s.name)));
            box->setChecked(place ? pins_[s.id].place : pins_[s.id].way);
            connect(box, &QCheckBox::toggled, this, [this, id = s.id, place](bool on) { (place ? pins_[id].place : pins_[id].way) = on; });
            rows_->addWidget(box, line, place ? 1 : 2, Qt::AlignCenter);
        }
        ++line;
    }
}

void LogPage::write_numbers() {
    std::vector<LayInLog> lay;
    for (const SequencePlace& p : sequence_.places)
        if (!p.stranger) lay.push_back({boards_[p.item]->up.id, p.over, p.ended});
    session_.edit(tr("Number the slabs of a log"), [&](Documents& d) { number_slabs(d, lay); });
    Q_EMIT say(tr("Numbered from the lowest up, with which face lay up and which end was which."), false);
    Q_EMIT back();
}

}  // namespace yb
