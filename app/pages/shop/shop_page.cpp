#include "app/pages/shop/shop_page.h"

#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QRegularExpression>
#include <QVBoxLayout>

#include <algorithm>

#include "app/pages/shop/resin_plot.h"
#include "app/kit/fields/field_form.h"
#include "app/ground/theme/theme.h"
#include "core/shop/edit/shop_edits.h"
#include "core/ground/fields/walk.h"
#include "core/material/resin/mix.h"

namespace yb {

std::variant<std::vector<double>, QString> read_boards(const QString& text, const Units& units) {
    std::vector<double> out;
    for (const QString& part : text.split(QRegularExpression("[,;]"), Qt::SkipEmptyParts)) {
        if (part.trimmed().isEmpty()) continue;
        const auto read = parse(part.toStdString(), Kind::fine, units);
        if (const auto* e = std::get_if<ParseError>(&read))
            return QObject::tr("‘%1’: %2").arg(part.trimmed(), QString::fromStdString(e->sentence()));
        const double v = std::get<double>(read);
        if (v <= 0 || v > 300)
            return QObject::tr("‘%1’: a board from 0 to %2 is taken here.")
                .arg(part.trimmed(), QString::fromStdString(format(fine(300), units)));
        out.push_back(v);
    }
    std::sort(out.begin(), out.end());
    return out;
}

namespace {

/// A number of one resin of the shelf, by the field it is declared at.
Field resin_field(const std::string& key, const char* field, const QString& name) {
    Field f = shop_number(std::string("resins[].") + field, QString::fromStdString(key) + "_" + name);
    f.get = [key, field](const Session& s) -> std::optional<double> {
        const Resin* there = find_resin(s.shop().resins, key);
        if (!there) return {};
        Resin r = *there;
        return number_at(walk_of(r), field).value;
    };
    f.set = [key, field, label = f.label, empty = f.may_be_empty](Session& s, std::optional<double> v) {
        if (v || empty) s.edit_shop(label, [&](Shop& shop) { set_resin_number(shop, key, field, v); });
    };
    return f;
}

std::vector<Field> resin_fields(const std::string& key) {
    return {resin_field(key, "gel_25_h", "gel"),
            resin_field(key, "deepest_mm", "deepest"),
            resin_field(key, "parts_a", "parts_a"),
            resin_field(key, "parts_b", "parts_b"),
            resin_field(key, "density_a", "density_a"),
            resin_field(key, "density_b", "density_b"),
            resin_field(key, "price_l", "price"),
            resin_field(key, "pot_life_h", "pot_life"),
            resin_field(key, "pot_g", "pot"),
            resin_field(key, "heat_kj_kg", "heat"),
            resin_field(key, "pa_s", "viscosity"),
            resin_field(key, "low_c", "low"),
            resin_field(key, "high_c", "high"),
            resin_field(key, "recoat_from_h", "recoat_from"),
            resin_field(key, "recoat_to_h", "recoat_to"),
            resin_field(key, "sand_h", "sand"),
            resin_field(key, "cured_h", "cured"),
            resin_field(key, "kit_l", "kit"),
            resin_field(key, "left_l", "left")};
}

TextField resin_name(const std::string& key) {
    return {QString::fromStdString(key) + "_label", QObject::tr("Called"),
            [key](const Session& s) {
                const Resin* r = find_resin(s.shop().resins, key);
                return r ? QString::fromStdString(r->label) : QString();
            },
            [key](Session& s, const QString& v) {
                s.edit_shop(QObject::tr("Name a resin"), [&](Shop& shop) { name_resin(shop, key, v.toStdString()); });
            }};
}

PickField yes_no(const QString& name, const QString& label, const QString& no, const QString& yes, std::function<bool&(Shop&)> member) {
    return {name,
            label,
            {no, yes},
            [member](const Session& s) {
                Shop copy = s.shop();
                return member(copy) ? 1 : 0;
            },
            [member, label](Session& s, int i) { s.edit_shop(label, [&](Shop& shop) { member(shop) = i == 1; }); }};
}

PickField resin_runs(const std::string& key) {
    return yes_no(QString::fromStdString(key) + "_thin", QObject::tr("In taped cracks"), QObject::tr("stays"),
                  QObject::tr("runs through gaps"), [key](Shop& s) -> bool& {
                      for (Resin& r : s.resins)
                          if (r.key == key) return r.thin;
                      return s.resins.front().thin;
                  });
}

QLabel* title(const QString& text, double points) {
    auto* l = new QLabel(text);
    l->setFont(theme::figures(points));
    l->setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Fixed);
    return l;
}

std::vector<TextField> shop_texts() {
    return {{"shop_name", QObject::tr("The shop is called"), [](const Session& s) { return QString::fromStdString(s.shop().name); },
             [](Session& s, const QString& v) {
                 s.edit_shop(QObject::tr("Name the shop"), [&](Shop& shop) { name_shop(shop, v.toStdString()); });
             }}};
}

/// A list of sizes at hand, typed with commas between.
TextField sizes(const QString& name, const QString& label, std::function<std::vector<double>&(Shop&)> list) {
    const auto get = [list](const Session& s) {
        Shop shop = s.shop();
        QStringList all;
        for (const double b : list(shop)) all << QString::fromStdString(edit_text(fine(b), s.units()));
        return all.join(", ");
    };
    return {name, label, get, [get, list, label](Session& s, const QString& v) {
                const auto read = read_boards(v, s.units());
                if (const auto* why = std::get_if<QString>(&read)) {
                    Q_EMIT s.trouble(*why + QObject::tr(" They stay as they were: %1").arg(get(s)));
                    return;
                }
                s.edit_shop(label, [&](Shop& shop) { list(shop) = std::get<0>(read); });
            }};
}

std::vector<TextField> sled_texts() {
    return {sizes("sled_boards", QObject::tr("Flat boards at hand"), [](Shop& s) -> std::vector<double>& { return s.sled.spacers_mm; }),
            sizes("shim_stock", QObject::tr("Shim stock"), [](Shop& s) -> std::vector<double>& { return s.sled.shims_mm; }),
            sizes("shop_bushings", QObject::tr("Guide bushings at hand"), [](Shop& s) -> std::vector<double>& { return s.bushings_mm; })};
}

std::vector<Field> sled_fields() {
    return {shop_number("sled.cutter_mm"),
            shop_number("sled.depth_mm"),
            shop_number("sled.overlap"),
            shop_number("sled.feed_mm_s", "sled_feed"),
            shop_number("sled.turn_s", "sled_turn"),
            shop_number("sled.layer_s", "sled_layer"),
            shop_number("sled.rail_mm"),
            shop_number("sled.floor_mm"),
            shop_number("sled.stickout_mm"),
            shop_number("sled.tram_mm"),
            shop_number("sled.span_mm"),
            shop_number("sled.beams"),
            shop_number("sled.beam_wide_mm"),
            shop_number("sled.beam_high_mm"),
            shop_number("sled.beam_mpa"),
            shop_number("sled.router_n"),
            shop_number("sled.loose"),
            shop_number("sled.bag_l"),
            shop_number("sled.light_mm"),
            shop_number("sled.tram_feed_mm"),
            shop_number("sled.reach_mm"),
            shop_number("sled.base_mm"),
            shop_number("sled.router_w"),
            shop_number("sled.edge_m"),
            shop_number("sled.deck_mm")};
}

/// Six gaps under a straightedge: whether the bed is flat.
std::vector<Field> bed_fields() {
    std::vector<Field> out;
    for (const char* line : {"front_mm", "back_mm", "left_mm", "right_mm", "rising_mm", "falling_mm"})
        out.push_back(shop_number(std::string("sled.bed.") + line));
    return out;
}

/// What else there is to make a face flat with.
std::vector<Field> tool_fields() {
    std::vector<Field> out;
    for (const char* what : {"planer_mm", "planer_layer_mm", "planer_mm_s", "drum_mm", "drum_layer_mm", "drum_mm_s", "hand_mm",
                             "hand_layer_mm", "hand_mm_s", "machine_m2", "machine_days", "machine_long_mm", "machine_wide_mm", "bought_m2"})
        out.push_back(shop_number(std::string("sled.tools.") + what));
    return out;
}

std::vector<Field> hours_fields() {
    return {shop_number("workday.from_h", "work_from"), shop_number("workday.to_h", "work_to"),
            shop_number("dry_allowed_pct", "dry_allowed")};
}

}  // namespace

ShopPage::ShopPage(Session& session, QWidget* parent) : QScrollArea(parent), session_(session) {
    setObjectName("shop_page");
    setFrameShape(QFrame::NoFrame);
    setWidgetResizable(true);
    connect(&session, &Session::changed, this, &ShopPage::refresh);
}

void ShopPage::refresh() {
    if (!isVisible() && !built_for_.empty()) return;
    std::vector<std::string> keys;
    for (const Resin& r : session_.shop().resins) keys.push_back(r.key);
    if (keys != built_for_) {
        built_for_ = keys;
        rebuild();
    }
    for (FieldForm* f : forms_) f->show_values();
}

void ShopPage::rebuild() {
    forms_.clear();
    auto* page = new QWidget;
    auto* all = new QVBoxLayout(page);
    all->setContentsMargins(40, 20, 40, 24);
    all->setSpacing(14);
    auto* head = new QHBoxLayout;
    head->addWidget(title(tr("The shop"), 20), 1);
    auto* done = new QPushButton(tr("Back to the bench"));
    done->setObjectName("shop_back");
    done->setProperty("next", true);
    done->setMinimumWidth(200);
    connect(done, &QPushButton::clicked, this, &ShopPage::back);
    head->addWidget(done);
    all->addLayout(head);
    const auto form = [&](QLayout* into, const std::vector<TextField>& t, const std::vector<PickField>& p, const std::vector<Field>& f) {
        auto* made = new FieldForm(session_, t, p, f);
        into->addWidget(made);
        forms_.push_back(made);
    };
    auto* columns = new QHBoxLayout;
    columns->setSpacing(48);
    auto* left = new QVBoxLayout;
    left->addWidget(title(tr("Sled, cutter and pace"), 13));
    form(left, sled_texts(),
         {yes_no("rails", tr("Rails stand"), tr("on the deck"), tr("beside it"), [](Shop& s) -> bool& { return s.sled.rails_beside; }),
          yes_no("sled_to_build", tr("The sled"), tr("is there"), tr("is to be built"), [](Shop& s) -> bool& { return s.sled.to_build; })},
         sled_fields());
    left->addSpacing(18);
    left->addWidget(title(tr("The bed, gaps under a straightedge"), 13));
    form(left, {}, {}, bed_fields());
    left->addSpacing(18);
    left->addWidget(title(tr("Other ways to flatten"), 13));
    form(left, {}, {}, tool_fields());
    left->addSpacing(18);
    left->addWidget(title(tr("Hours and paper"), 13));
    form(left, shop_texts(),
         {yes_no("work_saturdays", tr("Saturdays"), tr("free"), tr("worked"), [](Shop& s) -> bool& { return s.workday.saturdays; }),
          yes_no("paper", tr("Sheets on"), tr("A4"), tr("Letter"), [](Shop& s) -> bool& { return s.letter; })},
         hours_fields());
    left->addStretch(1);
    columns->addLayout(left, 2);
    auto* right = new QVBoxLayout;
    right->addWidget(title(tr("Resins, as their labels say"), 13));
    auto* cards = new QGridLayout;
    cards->setHorizontalSpacing(36);
    cards->setVerticalSpacing(16);
    int n = 0;
    for (const std::string& key : built_for_) {
        auto* card = new QVBoxLayout;
        card->setSpacing(2);
        form(card, {resin_name(key)}, {resin_runs(key)}, resin_fields(key));
        card->addWidget(new ResinPlot(session_, key));
        if (!find_resin(starting_resins(), key)) {
            auto* drop = new QPushButton(tr("take this one away"));
            drop->setObjectName("drop_" + QString::fromStdString(key));
            drop->setProperty("plain", true);
            connect(drop, &QPushButton::clicked, this,
                    [this, key] { session_.edit(tr("Take a resin away"), [&](Documents& d) { drop_resin(d, key); }); });
            card->addWidget(drop);
        }
        card->addStretch(1);
        cards->addLayout(card, n / 2, n % 2);
        ++n;
    }
    right->addLayout(cards);
    auto* more = new QPushButton(tr("Another resin, from its label"));
    more->setObjectName("add_resin");
    more->setProperty("quiet", true);
    connect(more, &QPushButton::clicked, this, [this] { session_.edit_shop(tr("Another resin"), [](Shop& shop) { add_resin(shop); }); });
    right->addWidget(more, 0, Qt::AlignLeft);
    right->addStretch(1);
    columns->addLayout(right, 3);
    all->addLayout(columns);
    auto* word =
        new QLabel(tr("Resin: gloves and moving air; keep a hot mix away from anything that burns, never in a closed bin. What the label "
                      "says stands above these figures."));
    word->setWordWrap(true);
    word->setFont(theme::text(9.5));
    all->addWidget(word);
    all->addStretch(1);
    setWidget(page);
}

}  // namespace yb
