#include "app/pages/shop/shop_page.h"

#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QRegularExpression>
#include <QVBoxLayout>

#include <algorithm>

#include "app/ground/theme/theme.h"
#include "app/ground/words.h"
#include "app/kit/fields/field_form.h"
#include "app/pages/shop/resin_plot.h"
#include "app/pages/shop/shop_pictures.h"
#include "core/ground/fields/walk.h"
#include "core/material/resin/mix.h"
#include "core/shop/edit/shop_edits.h"

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
    // What it starts at is its class's; one of the maker's own has no such thing.
    f.starts = nullptr;
    if (find_resin(starting_resins(), key))
        f.starts = [key, field]() -> std::optional<double> {
            Resin fresh = *find_resin(starting_resins(), key);
            return number_at(walk_of(fresh), field).value;
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

/// What a class of finish's label says, and how its zones are worked.
std::vector<Field> finish_fields(const std::string& key) {
    std::vector<Field> out;
    for (const char* field :
         {"first_ml_m2", "more_ml_m2", "coats", "parts_a", "parts_b", "soak_min", "window_min", "on_min_m2", "off_min_m2", "recoat_h",
          "recoat_to_h", "handle_h", "cure_h", "low_c", "high_c", "maintain_ml_m2", "maintain_months", "price_l", "left_l"})
        out.push_back(shop_number("finishes." + key + "." + field, QString::fromStdString(key) + "_" + field));
    return out;
}

std::vector<Field> sanding_fields() {
    std::vector<Field> out;
    for (const char* what : {"felt_min_m2", "planed_min_m2", "after_min_m2", "resin_times", "edge_min_m", "disc_m2", "disc_times"})
        out.push_back(shop_number(std::string("sanding.") + what));
    return out;
}

std::vector<Field> labour_fields() {
    std::vector<Field> out;
    Labour all;
    for (const FieldLine& line : describe(walk_of(all)))
        out.push_back(shop_number("labour." + line.path, QString::fromStdString("labour_" + line.path)));
    return out;
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

std::vector<TextField> meter_texts() {
    const auto get = [](const Session& s) { return QString::fromStdString(booklet_text(s.shop().meter)); };
    return {{"shop_meter", QObject::tr("Moisture meter: woods, slope, offset"), get, [get](Session& s, const QString& v) {
                 const auto read = read_booklet(v.toStdString());
                 if (const auto* e = std::get_if<ParseError>(&read)) {
                     Q_EMIT s.trouble(QObject::tr("%1 They stay as they were: %2").arg(QString::fromStdString(e->sentence()), get(s)));
                     return;
                 }
                 s.edit_shop(QObject::tr("The meter's booklet"), [&](Shop& shop) { shop.meter = std::get<0>(read); });
             }}};
}

std::vector<TextField> money_texts() {
    return {{"shop_currency", QObject::tr("Currency"), [](const Session& s) { return QString::fromStdString(s.shop().money.currency); },
             [](Session& s, const QString& v) {
                 s.edit_shop(QObject::tr("Currency"), [&](Shop& shop) { shop.money.currency = v.trimmed().toStdString(); });
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

std::vector<Field> together(std::vector<Field> a, std::vector<Field> b) {
    a.insert(a.end(), std::make_move_iterator(b.begin()), std::make_move_iterator(b.end()));
    return a;
}

}  // namespace

ShopPage::ShopPage(Session& session, QWidget* parent) : QWidget(parent), session_(session) {
    setObjectName("shop_page");
    auto* all = new QVBoxLayout(this);
    all->setContentsMargins(40, 20, 40, 20);
    all->setSpacing(12);
    auto* head = new QHBoxLayout;
    head->addWidget(title(tr("The shop"), 20), 1);
    auto* done = new QPushButton(tr("Back to the bench"));
    done->setObjectName("shop_back");
    done->setProperty("next", true);
    done->setMinimumWidth(200);
    connect(done, &QPushButton::clicked, this, &ShopPage::back);
    head->addWidget(done);
    all->addLayout(head);
    auto* row = new QHBoxLayout;
    row->setSpacing(theme::grown(6));
    for (const ShopGroup& g : groups()) {
        auto* b = new QPushButton(g.name);
        b->setObjectName("shop_group_" + g.key);
        b->setProperty("quiet", true);
        b->setCheckable(true);
        connect(b, &QPushButton::clicked, this, [this, key = g.key] { show_group(key); });
        row->addWidget(b);
        buttons_[g.key] = b;
    }
    row->addStretch(1);
    all->addLayout(row);
    body_ = new QVBoxLayout;
    all->addLayout(body_, 1);
    connect(&session, &Session::changed, this, &ShopPage::refresh);
    show_group("air");
}

std::vector<ShopGroup> ShopPage::groups() {
    std::vector<ShopGroup> out;
    const auto picture = [](const QString& name, ShopPicture::Draw draw) {
        return [name, draw](Session& s) -> QWidget* { return new ShopPicture(s, name, draw); };
    };
    QStringList climates;
    for (const Climate& c : generic_climates()) climates << told(c.name);
    const auto climate = [&](const QString& name, const QString& label, Climate Shop::*where, void (*set)(Shop&, const Climate&)) {
        return PickField{name, label, climates,
                         [where](const Session& s) {
                             const auto& known = generic_climates();
                             const auto it = std::find(known.begin(), known.end(), s.shop().*where);
                             return it == known.end() ? -1 : static_cast<int>(it - known.begin());
                         },
                         [label, set](Session& s, int i) {
                             s.edit_shop(label, [&](Shop& shop) { set(shop, generic_climates().at(static_cast<std::size_t>(i))); });
                         }};
    };
    std::vector<Field> months;
    for (int m = 0; m < 12; ++m) {
        const std::string path = "air.months[" + std::to_string(m) + "].";
        months.push_back(shop_number(path + "rh_pct", QString("shop_rh_%1").arg(m + 1), tr("%1, humidity").arg(told(month_name(m)))));
        months.push_back(shop_number(path + "temp_c", QString("shop_c_%1").arg(m + 1), tr("%1, warmth").arg(told(month_name(m)))));
    }
    months.push_back(shop_number("dry_allowed_pct", "dry_allowed"));
    out.push_back({"air",
                   tr("Air"),
                   tr("What the shop's air is like through the year: wood settles at it, resin sets by it."),
                   [](Session& s) -> QWidget* { return new AirPicture(s); },
                   meter_texts(),
                   {climate("shop_climate", tr("Shop, like"), &Shop::air, set_shop_air),
                    climate("store_climate", tr("Store, like"), &Shop::store, set_store_air)},
                   months});
    out.push_back(
        {"hands",
         tr("Hands and hours"),
         tr("When hands are there. Waiting runs day and night; work falls into these hours."),
         picture("shop_week", draw_week),
         shop_texts(),
         {yes_no("work_saturdays", tr("Saturdays"), tr("free"), tr("worked"), [](Shop& s) -> bool& { return s.workday.saturdays; }),
          yes_no("paper", tr("Sheets on"), tr("A4"), tr("Letter"), [](Shop& s) -> bool& { return s.letter; })},
         {shop_number("workday.from_h", "work_from"), shop_number("workday.to_h", "work_to")}});
    out.push_back(
        {"sled",
         tr("The sled"),
         tr("Router, sled, rails and bed, as they are: lanes, hours and the height of the rails follow from them."),
         picture("shop_sled", draw_sled),
         {},
         {yes_no("rails", tr("Rails stand"), tr("on the deck"), tr("beside it"), [](Shop& s) -> bool& { return s.sled.rails_beside; }),
          yes_no("sled_to_build", tr("The sled"), tr("is there"), tr("is to be built"), [](Shop& s) -> bool& { return s.sled.to_build; })},
         together(sled_fields(), bed_fields())});
    const auto there = [](const QString& name, const QString& label, bool FlatTools::*has) {
        return yes_no(name, label, tr("not here"), tr("is here"), [has](Shop& s) -> bool& { return s.sled.tools.*has; });
    };
    out.push_back(
        {"machines",
         tr("Other machines"),
         tr("What else makes a face flat. What is not here is left out of plans."),
         picture("shop_machines", draw_machines),
         {},
         {there("has_planer", tr("Thickness planer"), &FlatTools::has_planer), there("has_drum", tr("Drum sander"), &FlatTools::has_drum),
          there("has_hand", tr("Hand power planer"), &FlatTools::has_hand)},
         tool_fields()});
    out.push_back({"stock",
                   tr("Stock"),
                   tr("What lies in the boxes: shims are stacked from it, the sled's boards and templates chosen from it."),
                   picture("shop_stock", draw_stock),
                   sled_texts(),
                   {},
                   {}});
    out.push_back({"resins", tr("Resins"), tr("As their labels say. What the label says stands above these figures."), {}, {}, {}, {}});
    out.push_back({"finishes", tr("Finishes"), tr("As their labels say. What the label says stands above these figures."), {}, {}, {}, {}});
    out.push_back(
        {"sanders",
         tr("Sanders"),
         tr("How many minutes a square metre takes you, grit by grit, and how long a disc lasts. A maker's pace to begin with: change it."),
         picture("shop_sanders", draw_sanders),
         {},
         {yes_no("disc_sander", tr("Coarse grits"), tr("by the orbital sander"), tr("by a disc sander"),
                 [](Shop& s) -> bool& { return s.sanding.disc_sander; })},
         sanding_fields()});
    out.push_back(
        {"labour",
         tr("Labour"),
         tr("What hands take for the work between the computed steps, in minutes: an amount of the plan times a rate, and setting up. "
            "Starting values of makers' reports: change them, or tick operations off and your pace is learned."),
         {},
         {},
         {},
         labour_fields()});
    std::vector<Field> prices;
    for (const char* what : {"hour", "helper_hour", "overhead_pct", "margin_pct", "tax_pct", "order_days", "valid_days", "prices.glue_l",
                             "prices.glued_piece", "prices.panel", "prices.tape_roll", "prices.caulk_m", "prices.cutter_m2",
                             "prices.pigment_kg", "prices.bolt", "prices.insert", "prices.channel_m", "prices.plate", "prices.base_l"})
        prices.push_back(shop_number(std::string("money.") + what));
    for (const char* what : {"sled.tools.machine_m2", "sled.tools.bought_m2", "sanding.disc_price"}) prices.push_back(shop_number(what));
    for (const Resin& r : session_.shop().resins) {
        Field f = resin_field(r.key, "price_l", "cost");
        f.label = tr("%1, a litre").arg(told(r.label));
        prices.push_back(std::move(f));
    }
    for (const OptionName& o : finishes.options)
        prices.push_back(shop_number(std::string("finishes.") + o.key + ".price_l", QString("%1_cost").arg(o.key),
                                     tr("%1, a litre").arg(told(o.label))));
    out.push_back({"money",
                   tr("Money"),
                   tr("What is paid elsewhere, in whatever money you count."),
                   picture("shop_prices", draw_prices),
                   money_texts(),
                   {},
                   std::move(prices)});
    return out;
}

void ShopPage::show_resin(const std::string& key) {
    resin_ = key;
    show_group("resins");
}

void ShopPage::show_group(const QString& key) {
    const bool again = key == group_;
    group_ = key;
    for (const auto& [k, b] : buttons_) b->setChecked(k == key);
    form_ = nullptr;
    if (page_) {
        body_->removeWidget(page_);
        page_->hide();
        page_->setParent(nullptr);  // what calls may stand on it: it goes when that has come to its end
        page_->deleteLater();
    }
    page_ = new QWidget;
    auto* row = new QHBoxLayout(page_);
    row->setContentsMargins(0, theme::grown(8), 0, 0);
    row->setSpacing(theme::grown(36));
    for (const ShopGroup& g : groups())
        if (g.key == key) key == "resins" ? fill_resins(row, g) : key == "finishes" ? fill_finishes(row, g) : fill_group(row, g);
    body_->addWidget(page_, 1);
    built_for_ = resin_keys();
    if (!again && form_ && isVisible()) form_->setFocus();
}

void ShopPage::fill_group(QHBoxLayout* row, const ShopGroup& g) {
    auto* left = new QVBoxLayout;
    auto* what = new QLabel(g.what);
    what->setWordWrap(true);
    what->setFont(theme::text(11));
    left->addWidget(what);
    left->addWidget(g.picture(session_), 1);
    row->addLayout(left, 3);
    row->addWidget(scrolled(new FieldForm(session_, g.texts, g.picks, g.fields)), 2);
}

QScrollArea* ShopPage::scrolled(FieldForm* form) {
    form_ = form;
    auto* area = new QScrollArea;
    area->setFrameShape(QFrame::NoFrame);
    area->setWidgetResizable(true);
    area->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    auto* inside = new QWidget;
    auto* box = new QVBoxLayout(inside);
    box->setContentsMargins(0, 0, theme::grown(10), 0);
    box->addWidget(form);
    box->addStretch(1);
    area->setWidget(inside);
    return area;
}

/// What a shelf is for, and the names of what stands on it, two side by side; one is picked.
QVBoxLayout* ShopPage::shelf_of(const ShopGroup& g, const std::vector<std::pair<std::string, QString>>& names, const std::string& picked,
                                std::function<void(const std::string&)> pick) {
    auto* left = new QVBoxLayout;
    left->setSpacing(theme::grown(6));
    auto* what = new QLabel(g.what);
    what->setWordWrap(true);
    what->setFont(theme::text(11));
    left->addWidget(what);
    auto* grid = new QGridLayout;
    grid->setSpacing(theme::grown(4));
    int n = 0;
    for (const auto& [key, name] : names) {
        auto* b = new QPushButton(name);
        b->setObjectName("shelf_" + QString::fromStdString(key));
        b->setProperty("plain", true);
        b->setCheckable(true);
        b->setChecked(key == picked);
        b->setStyleSheet(key == picked ? QStringLiteral("font-weight: bold; text-align: left") : QStringLiteral("text-align: left"));
        connect(b, &QPushButton::clicked, this, [pick, key = key] { pick(key); });
        grid->addWidget(b, n / 2, n % 2);
        ++n;
    }
    left->addLayout(grid);
    return left;
}

/// The cupboard at the left, one class at a time: all of them on one rule of hours, its label beside it.
void ShopPage::fill_finishes(QHBoxLayout* row, const ShopGroup& g) {
    std::vector<std::pair<std::string, QString>> names;
    for (const OptionName& o : finishes.options) names.emplace_back(o.key, told(o.label));
    if (finish_.empty()) finish_ = names.front().first;
    auto* left = shelf_of(g, names, finish_, [this](const std::string& key) {
        finish_ = key;
        show_group("finishes");
    });
    left->addWidget(new ShopPicture(session_, "shop_finishes", draw_finishes), 1);
    auto* word =
        new QLabel(tr("Rags with oil on them can set themselves alight: flat outside, or under water in a closed tin. Spraying wants a "
                      "booth; local rules stand above this."));
    word->setWordWrap(true);
    word->setFont(theme::text(9.5));
    left->addWidget(word);
    row->addLayout(left, 3);
    row->addWidget(scrolled(new FieldForm(session_, {}, {}, finish_fields(finish_))), 2);
}

/// The shelf at the left, one resin at a time: its curve large, its label beside it.
void ShopPage::fill_resins(QHBoxLayout* row, const ShopGroup& g) {
    const std::vector<Resin>& shelf = session_.shop().resins;
    if (!find_resin(shelf, resin_) && !shelf.empty()) resin_ = shelf.front().key;
    std::vector<std::pair<std::string, QString>> names;
    for (const Resin& r : shelf) names.emplace_back(r.key, told(r.label));
    auto* left = shelf_of(g, names, resin_, [this](const std::string& key) { show_resin(key); });
    auto* plot = new ResinPlot(session_, resin_);
    plot->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    left->addWidget(plot, 1);
    auto* doing = new QHBoxLayout;
    auto* more = new QPushButton(tr("Another resin like this one, from its label"));
    more->setObjectName("add_resin");
    more->setProperty("quiet", true);
    connect(more, &QPushButton::clicked, this, [this] {
        std::string made;
        session_.edit_shop(tr("Another resin"), [&](Shop& shop) { made = add_resin(shop, resin_); });
        show_resin(made);
    });
    doing->addWidget(more);
    if (!find_resin(starting_resins(), resin_)) {
        auto* drop = new QPushButton(tr("Take this one away"));
        drop->setObjectName("drop_" + QString::fromStdString(resin_));
        drop->setProperty("quiet", true);
        connect(drop, &QPushButton::clicked, this,
                [this, key = resin_] { session_.edit(tr("Take a resin away"), [&](Documents& d) { drop_resin(d, key); }); });
        doing->addWidget(drop);
    }
    doing->addStretch(1);
    left->addLayout(doing);
    auto* word = new QLabel(tr("Resin: gloves and moving air; keep a hot mix away from anything that burns, never in a closed bin."));
    word->setWordWrap(true);
    word->setFont(theme::text(9.5));
    left->addWidget(word);
    row->addLayout(left, 3);
    row->addWidget(scrolled(new FieldForm(session_, {resin_name(resin_)}, {resin_runs(resin_)}, resin_fields(resin_))), 2);
}

std::vector<std::string> ShopPage::resin_keys() const {
    std::vector<std::string> keys;
    for (const Resin& r : session_.shop().resins) keys.push_back(r.key);
    return keys;
}

void ShopPage::refresh() {
    if (!isVisible()) return;
    if (resin_keys() != built_for_) return show_group(group_);
    if (form_) form_->show_values();
}

void ShopPage::showEvent(QShowEvent* e) {
    QWidget::showEvent(e);
    refresh();
    if (form_) form_->show_values();
}

}  // namespace yb
