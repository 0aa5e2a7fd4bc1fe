#include "core/steps/top/told.h"

#include <algorithm>
#include <string>

namespace yb {

namespace {

constexpr double thin_mm = 8;  ///< a poured river that is narrower cracks or does not fill

class Teller {
  public:
    Teller(const Top& top, const MakeUpPlan& plan, const MakeUpChoices& choices, LayPlan& lay)
        : top_(top), plan_(plan), choices_(choices), lay_(lay), hl_(plan.top.length_mm / 2) {}

    void run() {
        std::vector<const JointPlan*> rivers;
        for (const JointPlan& j : plan_.joints)
            if (j.river && j.above.length_mm > 0) rivers.push_back(&j);
        if (rivers.empty()) return;
        widths(rivers);
        if (choices_.kind == MakeUp::open_river) rods(rivers);
        else if (top_.ready && top_.river_l() > 0) litres_held();
        for (const JointPlan* j : rivers) {
            crossing(*j);
            evenness(*j);
            if (choices_.kind == MakeUp::open_river) rod_cautions(*j);
        }
    }

  private:
    double station(double u) const { return u + hl_; }
    std::string faces() const { return top_.ready ? "finished" : "as it is, not flattened"; }

    void widths(const std::vector<const JointPlan*>& rivers) {
        const JointPlan* narrow = rivers.front();
        const auto least = [](const JointPlan& j) { return std::min(j.above.narrowest_mm, j.below.narrowest_mm); };
        double widest = 0;
        double mean = 0;
        std::vector<Given> given;
        for (const JointPlan* j : rivers) {
            if (least(*j) < least(*narrow)) narrow = j;
            widest = std::max({widest, j->above.widest_mm, j->below.widest_mm});
            mean += j->above.mean_mm / static_cast<double>(rivers.size());
            const std::string river = "river " + std::to_string(j->right + 1);
            given.push_back({river + ", above, mean", mm(j->above.mean_mm), faces()});
            given.push_back({river + ", above, narrowest", mm(j->above.narrowest_mm), faces()});
            given.push_back({river + ", below, mean", mm(j->below.mean_mm), faces()});
            given.push_back({river + ", below, narrowest", mm(j->below.narrowest_mm), faces()});
        }
        const bool below = narrow->below.narrowest_mm < narrow->above.narrowest_mm;
        const double u = below ? narrow->below.narrowest_x : narrow->above.narrowest_x;
        lay_.figures.push_back(
            {"lay.river",
             "River, narrowest and widest",
             mm(least(*narrow)),
             mm(widest),
             below ? say("narrowest below, at {}; {} on average above", along(station(u)), mm(mean))
                   : say("narrowest at {}; {} on average", along(station(u)), mm(mean)),
             {"left bank − right bank at the finished planes, at every corner of both", given, "docs/methods.md, Rivers"}});
    }

    void rods(const std::vector<const JointPlan*>& rivers) {
        std::size_t rods = 0;
        double longest = 0;
        std::vector<Given> given{{"pitch wanted", mm(choices_.rod_pitch_mm), "what you set"},
                                 {"depth", mm(choices_.rod_depth_mm), "what you set"},
                                 {"rod", fine(choices_.rod_mm), "what you set"}};
        for (const JointPlan* j : rivers)
            for (const Rod& r : j->rods) {
                ++rods, longest = std::max(longest, r.length_mm);
                given.push_back({"gap at " + std::to_string(static_cast<int>(station(r.u_mm))) + " mm", mm(r.gap_mm), "half-way down"});
            }
        lay_.figures.push_back({"lay.rods",
                                "Rods, and the longest",
                                count(static_cast<double>(rods)),
                                mm(longest),
                                say("square to the joint, {} deep into both leaves", mm(choices_.rod_depth_mm)),
                                {"length = gap at that place, at the rod's height, + both depths", given,
                                 "an even pitch, parallel to each other so that the leaves slide together"}});
    }

    /// How wide the water stands open at a station, all rivers together.
    double open_at(double u) const {
        double sum = 0;
        for (const Across& a : top_.across(u))
            if (!top_.regions[a.region].wood()) sum += a.to - a.from;
        return sum;
    }

    void litres_held() {
        double above = 0;
        double below = 0;
        for (const Region& r : top_.regions)
            if (r.kind == RegionKind::resin && !r.let_in) above += area(r.above), below += area(r.below);
        const bool left = open_at(1 - hl_) > 0.5;
        const bool right = open_at(hl_ - 1) > 0.5;
        const char* ends = left && right ? "{} of the top is resin; both ends show it"
                           : left        ? "{} of the top is resin; the right end stays wood"
                           : right       ? "{} of the top is resin; the left end stays wood"
                                         : "{} of the top is resin; both ends stay wood";
        lay_.figures.push_back({"lay.resin",
                                "Resin in the river",
                                litres(top_.river_l()),
                                {},
                                say(ends, percent(100 * above / std::max(1.0, top_.area_mm2()))),
                                {"(area above + 4 × half-way + below) / 6 × finished thickness",
                                 {{"upper face", square_metres(above * 1e-6), "bank to bank, finished"},
                                  {"underside", square_metres(below * 1e-6), "bank to bank, finished"},
                                  {"thickness", fine(top_.thickness_mm), "Flat"}},
                                 "no overfill, no reserve: Fill tells what to mix; docs/methods.md, Rivers"}});
    }

    void add(std::string key, Severity s, Phrase says, Vec2 uv) {
        lay_.cautions.push_back({std::move(key), s, step_key::lay, std::move(says), Vec2{station(uv.x), uv.y}});
    }

    static double middle_of(const JointPlan& j) { return j.along.empty() ? 0 : j.along[j.along.size() / 2].v; }

    /// Leaves whose banks cross do not fit together, however wide the top is.
    void does_not_fit(Phrase why) {
        lay_.fits = false;
        for (Figure& f : lay_.figures)
            if (f.key == "lay.fit" && f.label != "Short by") f.label = "Narrowest", f.note = std::move(why);
    }

    void crossing(const JointPlan& j) {
        const double v = middle_of(j);
        if (j.above.narrowest_mm < 0) does_not_fit(say("the leaves lie over one another"));
        else if (j.below.narrowest_mm < -0.5) does_not_fit(say("the banks meet below"));
        if (j.above.narrowest_mm < 0)
            add("lay.overlap", Severity::stop,
                say("The leaves overlap by {} at {}. Draw them apart.", mm(-j.above.narrowest_mm), along(station(j.above.narrowest_x))),
                {j.above.narrowest_x, v});
        if (j.below.narrowest_mm < -0.5 && j.below.narrowest_mm < j.above.narrowest_mm)
            add("lay.banks_meet", Severity::stop,
                j.above.narrowest_mm < 0 ? say("Below they overlap by more: {} at {} on the underside. Draw the leaves apart by that.",
                                               fine(-j.below.narrowest_mm), along(station(j.below.narrowest_x)))
                                         : say("The banks meet below: at {} they overlap by {} on the finished underside, though the show "
                                               "face stands open. Draw "
                                               "the leaves apart by that.",
                                               along(station(j.below.narrowest_x)), fine(-j.below.narrowest_mm)),
                {j.below.narrowest_x, v});
        const bool below = j.below.narrowest_mm < j.above.narrowest_mm;
        const double least = below ? j.below.narrowest_mm : j.above.narrowest_mm;
        const double u = below ? j.below.narrowest_x : j.above.narrowest_x;
        if (choices_.kind == MakeUp::river && j.above.narrowest_mm >= 0 && least >= -0.5 && least < thin_mm)
            add("lay.river_thin", Severity::watch,
                below
                    ? say("The river is only {} wide on the underside at {}: resin cracks or does not run in there. Draw the leaves apart, "
                          "or turn one.",
                          mm(std::max(0.0, least)), along(station(u)))
                    : say("The river is only {} wide at {}: resin cracks or does not run in there. Draw the leaves apart, or turn one.",
                          mm(least), along(station(u))),
                {u, v});
    }

    void evenness(const JointPlan& j) {
        const Vec2 at{j.above.narrowest_x, middle_of(j)};
        if (j.above.mean_mm > plan_.top.width_mm)
            add("lay.river_wide", Severity::stop,
                say("The river is {} wide, more than the top's {}.", mm(j.above.mean_mm), mm(plan_.top.width_mm)), at);
        if (j.above.narrowest_mm > 0 && j.above.widest_mm > 2.5 * j.above.narrowest_mm)
            add("lay.river_uneven", Severity::note,
                say("The river runs from {} to {}. “Even the river” slides and turns the banks.", mm(j.above.narrowest_mm),
                    mm(j.above.widest_mm)),
                at);
    }

    void rod_cautions(const JointPlan& j) {
        const Vec2 at{j.above.narrowest_x, middle_of(j)};
        for (const std::size_t i : {j.right, j.left}) {
            double least = 1e300;
            double u = 0;
            for (const Rod& r : j.rods)
                if (const auto w = wood_at(plan_.leaves[i], r.u_mm, true); w && w->to - w->from < least)
                    least = w->to - w->from, u = r.u_mm;
            if (least < choices_.rod_depth_mm + 25)
                add("lay.rod_deep", Severity::stop,
                    say("A rod {} deep leaves {} of wood at {}. Drill shallower, or move the rods.", mm(choices_.rod_depth_mm),
                        mm(std::max(0.0, least - choices_.rod_depth_mm)), along(station(u))),
                    {u, 0});
        }
        const double thick = top_.ready ? top_.thickness_mm : plan_.top.thickness_mm;
        if (choices_.rod_mm > thick / 2)
            add("lay.rod_thick", Severity::watch,
                say("Rods of {} take more than half of the {} there is.", fine(choices_.rod_mm), fine(thick)), at);
        add("lay.rods", Severity::note,
            say("Drill every rod parallel to the others, square to the joint: rods that follow the bends keep the leaves apart. "
                "Polish them before assembly."),
            at);
    }

    const Top& top_;
    const MakeUpPlan& plan_;
    const MakeUpChoices& choices_;
    LayPlan& lay_;
    double hl_;
};

}  // namespace

void tell_rivers(const Top& top, const MakeUpPlan& plan, const MakeUpChoices& choices, LayPlan& lay) {
    Teller(top, plan, choices, lay).run();
}

}  // namespace yb
