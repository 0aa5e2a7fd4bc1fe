// `burl sag`, `burl tip`, `burl under`.
#include <sstream>

#include <fmt/format.h>
#include <CLI/CLI.hpp>

#include "cli/common.h"
#include "cli/job_alone.h"
#include "core/files/io/csv.h"
#include "core/ground/beam/beam.h"
#include "core/ground/file/file.h"
#include "core/shop/job/plan.h"
#include "core/steps/under/tip.h"
#include "core/steps/under/under.h"

namespace burl {

namespace {

using yb::Json;

yb::Ring read_outline(const std::string& path) {
    const yb::Ring ring = of_file(path, [](const std::string& p) { return yb::read_points(yb::read_file(p, yb::most_csv_bytes)); });
    if (ring.size() < 3 || yb::area(ring) < 1)
        throw BadInput(path + ": an outline of three points at least is wanted, x_mm,y_mm in each line");
    if (const auto at = yb::self_crossing(ring))
        throw BadInput(fmt::format("{}: the outline crosses itself at {:.0f}, {:.0f} mm", path, at->x, at->y));
    return ring;
}

struct SagOrder {
    std::string outline, supports;
    double thickness_mm = 0, moe_mpa = 0, density = 0, point_n = 1000;
};

void run_sag(const SagOrder& o) {
    std::vector<double> at;
    std::istringstream in(o.supports);
    for (std::string part; std::getline(in, part, ',');) {
        double v = 0;
        if (!CLI::detail::lexical_cast(part, v) || !std::isfinite(v)) throw BadInput("--supports-mm wants X1,X2 in mm, as 400,1600");
        at.push_back(v);
    }
    if (at.size() != 2) throw BadInput(fmt::format("--supports-mm: {} supports are here, two are wanted, as 400,1600", at.size()));
    const yb::Plank plank = yb::plank_of(read_outline(o.outline), o.thickness_mm, o.moe_mpa, o.density, 2000);
    const double middle = (at[0] + at[1]) / 2;
    const yb::Bent bent = yb::bend(plank, at[0], at[1], {{middle, o.point_n}});
    const double left = bent.down_mm.front();
    const double right = bent.down_mm.back();
    print({{"supports_mm", at},
           {"point_n", o.point_n},
           {"mid_mm", bent.at(middle)},
           {"end_mm", std::abs(left) > std::abs(right) ? left : right},
           {"source", "Euler and Bernoulli, elastic; years of load about double it"}});
}

struct TipOrder {
    std::string outline, feet;
    double mass_kg = 0, height_mm = 0, base_kg = 0;
    std::optional<double> base_x_mm, base_y_mm;
};

void run_tip(const TipOrder& o) {
    yb::Standing s;
    s.rim = read_outline(o.outline);
    s.top_kg = o.mass_kg;
    s.top_at = yb::centroid(s.rim);
    const yb::Ring feet = of_file(o.feet, [](const std::string& p) { return yb::read_points(yb::read_file(p, yb::most_csv_bytes)); });
    s.feet = {feet.begin(), feet.end()};
    if (s.feet.size() < 3) throw BadInput(fmt::format("{}: {} feet are here, three at least are wanted", o.feet, s.feet.size()));
    const yb::Vec2 middle = yb::centroid(yb::convex_hull(s.feet));
    s.base_kg = o.base_kg;
    s.base_at = {o.base_x_mm.value_or(middle.x), o.base_y_mm.value_or(middle.y)};
    s.height_mm = o.height_mm;
    if (!(s.top_kg > 0)) throw BadInput("--mass-kg has to be above 0");
    const yb::Tipping t = yb::tip(s);
    print({{"down_n", t.down_n ? Json(*t.down_n) : Json(nullptr)},
           {"down_at", t.down_n ? Json{t.down_at.x, t.down_at.y} : Json(nullptr)},
           {"side_n", t.side_n},
           {"side_towards", {t.side_towards.x, t.side_towards.y}},
           {"balance_x_mm", t.balance.x},
           {"balance_y_mm", t.balance.y},
           {"stands", t.stands},
           {"said", "an estimate for the maker's judgement; local codes stand above it"}});
}

void run_under(const std::string& path) {
    const JobAlone f = read_job_alone(path);
    const yb::Plan plan = f.plan();
    const yb::UnderPlan& u = *plan.under;
    if (!u.ready) {
        std::string why = "the top is not there yet: measure, lay and flatten it first";
        for (const yb::Caution& c : u.cautions)
            if (c.severity == yb::Severity::stop) why = yb::render(c, f.docs.shop.units);
        throw BadInput(path + ": " + why);
    }
    Json holes = Json::array();
    for (const yb::Slot& s : u.slots)
        holes.push_back({{"part", key_of(s.part)},
                         {"u_mm", s.uv.x},
                         {"v_mm", s.uv.y},
                         {"round", s.round},
                         {"slot_mm", s.length_mm},
                         {"bolt_from_inner_mm", s.bolt_from_inner_mm},
                         {"bolt_mm", f.under().bolt_mm},
                         {"held_v_mm", s.held_v_mm},
                         {"travel_mm", s.month_mm}});
    print({{"fixed_v_mm", u.fixed_v_mm},
           {"day_moisture_pct", u.day_pct},
           {"moisture_pct", u.month_pct},
           {"lag_days", u.lag_days},
           {"holes", holes}});
}

}  // namespace

void add_base_verbs(CLI::App& app) {
    auto* sag = app.add_subcommand("sag", "how far a top goes down between two supports");
    auto so = std::make_shared<SagOrder>();
    sag->add_option("outline", so->outline, "CSV with x_mm,y_mm: x along the top")->required();
    sag->add_option("--thickness-mm", so->thickness_mm, "of the top")->required()->check(CLI::PositiveNumber);
    sag->add_option("--moe-mpa", so->moe_mpa, "modulus of elasticity along it, N/mm²")->required()->check(CLI::PositiveNumber);
    sag->add_option("--density", so->density, "kg/m³; its own weight")->required()->check(CLI::NonNegativeNumber);
    sag->add_option("--supports-mm", so->supports, "X1,X2 in the outline's x")->required();
    sag->add_option("--point-n", so->point_n, "somebody half-way between them, N")->check(CLI::NonNegativeNumber);
    sag->callback([so] { run_sag(*so); });

    auto* tipping = app.add_subcommand("tip", "what tips a table: a push down at the rim, a level push at the top");
    auto to = std::make_shared<TipOrder>();
    tipping->add_option("outline", to->outline, "CSV with x_mm,y_mm")->required();
    tipping->add_option("--mass-kg", to->mass_kg, "of the top")->required();
    tipping->add_option("--feet", to->feet, "CSV with x_mm,y_mm: the feet on the floor")->required();
    tipping->add_option("--height-mm", to->height_mm, "of the table")->required()->check(CLI::PositiveNumber);
    tipping->add_option("--base-kg", to->base_kg, "of the base")->check(CLI::NonNegativeNumber);
    tipping->add_option("--base-x-mm", to->base_x_mm, "its balance point; without it the middle of the feet");
    tipping->add_option("--base-y-mm", to->base_y_mm, "its balance point");
    tipping->callback([to] { run_tip(*to); });

    auto* under = app.add_subcommand("under", "the underside of a job: holes, slots, and the year's movement");
    auto path = std::make_shared<std::string>();
    under->add_option("job", *path, "a job exported as JSON")->required();
    auto year = std::make_shared<bool>(false);
    under->add_flag("--year", *year, "month by month, as it always does");
    under->callback([path, year] { run_under(*path); });
}

}  // namespace burl
