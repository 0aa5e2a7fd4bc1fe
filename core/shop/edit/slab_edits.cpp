#include "core/shop/edit/slab_edits.h"
#include "core/shop/job/job.h"

#include <algorithm>
#include <cmath>

#include "core/ground/calendar/calendar.h"
#include "core/shop/edit/edits.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/plan.h"
#include "core/steps/lay/lay.h"
#include "core/steps/rack/rack.h"

namespace yb {

std::string add_slab(Documents& docs, Slab slab) {
    slab.id = fresh_id("slab", docs);
    if (slab.name.empty()) slab.name = "Slab " + std::to_string(docs.slabs.size() + 1);
    docs.slabs[slab.id] = slab;
    return slab.id;
}

std::string copy_slab(Documents& docs, const std::string& id) {
    Slab copy = docs.slabs.at(id);
    copy.name += " (copy)";
    return add_slab(docs, std::move(copy));
}

std::string split_slab(Documents& docs, const std::string& id, double x) {
    const Slab& whole = docs.slabs.at(id);
    Slab left = piece_of(whole, -1e9, x);
    Slab right = piece_of(whole, x, 1e9);
    left.name = whole.name + ", left";
    right.name = whole.name + ", right";
    docs.slabs[id].retired = true;
    const std::string first = add_slab(docs, std::move(left));
    add_slab(docs, std::move(right));
    return first;
}

void read_moisture(Slab& slab, std::optional<double> pct, const std::string& today) {
    if (slab.moisture_pct && !slab.moisture_on.empty() && slab.moisture_on != today)
        slab.moisture_log.push_back({slab.moisture_on, *slab.moisture_pct});
    slab.moisture_pct = pct;
    slab.moisture_on = pct ? today : "";
}

double pen_of(FlawKind kind) {
    switch (kind) {
        case FlawKind::crack: return 3;
        case FlawKind::pith: return 12;
        case FlawKind::scar: return 5;
        default: return 0;
    }
}

void add_flaw(Slab& slab, FlawKind kind, Ring ring, bool over, bool with_pen) {
    if (const double pen = pen_of(kind); with_pen && pen > 0) ring = pen_outline(ring, pen / 2);
    if (over) ring = seen_from_below(std::move(ring));
    if (signed_area(ring) < 0) std::reverse(ring.begin(), ring.end());
    Flaw f;
    f.id = first_free("flaw", [&](const std::string& id) {
        return std::any_of(slab.flaws.begin(), slab.flaws.end(), [&](const Flaw& o) { return o.id == id; });
    });
    f.kind = kind;
    f.face = over ? Face::b : Face::a;
    f.outline = to_tenths(std::move(ring));
    f.through = kind == FlawKind::crack;
    if (!f.through) f.depth_mm = kind == FlawKind::scar ? 1.5 : kind == FlawKind::knot ? 5 : 10;
    f.floor_share = 0.7;
    slab.flaws.push_back(std::move(f));
}

void move_flaw(Slab& slab, std::size_t flaw, Vec2 by) {
    for (Vec2& q : slab.flaws.at(flaw).outline) q = q + by;
}

void read_at_yard(Slab& slab, double YardReading::*what, std::optional<double> value) {
    const auto before = yard_reading(slab.heights_a);
    if (!before && slab.heights_a.has_readings())
        throw Refusal(say("Face A has heights of its own, and they say more than six readings: empty them first."));
    const auto lines = yard_lines(shape_of(slab));
    if (!lines) throw Refusal(say("Type the tape first: where the straightedge lies follows from the edges of the slab."));
    YardReading reading = before.value_or(YardReading());
    reading.*what = value.value_or(0);
    slab.heights_a = yard_grid(*lines, reading);
    slab.scan.clear();
}

void lay_height_grid(Slab& slab) {
    const SlabShape shape = shape_of(slab);
    if (shape.ring_a.empty()) return;
    const Box b = bounds(shape.ring_a);
    HeightGrid g;
    for (double x = shape.x0 + 50; x <= shape.x1 - 40; x += 200) g.x_mm.push_back(x);
    for (double y = std::ceil((b.low.y + 40) / 150) * 150; y <= b.high.y - 40; y += 150) g.y_mm.push_back(y);
    g.gap_mm.assign(g.x_mm.size() * g.y_mm.size(), std::nullopt);
    for (HeightGrid* face : {&slab.heights_a, &slab.heights_b})
        if (!face->has_readings()) *face = g;
}

void make_rough_cuts(Documents& docs, const std::string& id, const Plan& plan) {
    Job& job = docs.jobs.at(id);
    job.cuts_done = true;
    std::vector<Slab> pieces;
    for (std::size_t i = 0; i < job.leaves.size() && i < plan.leaves.size(); ++i) {
        const auto it = docs.slabs.find(job.leaves[i].slab);
        if (it == docs.slabs.end()) continue;
        const LayPlan& lay = *plan.leaves[i].lay;
        if (!lay.ready) continue;
        // Offcuts are told on the slab as it was measured.
        const Ring rough = job.leaves[i].placement.turned_over ? seen_from_below(lay.rough) : lay.rough;
        for (Slab& piece : offcuts_of(it->second, rough)) pieces.push_back(std::move(piece));
    }
    for (Slab& piece : pieces) add_slab(docs, std::move(piece));
}

void take_instead(Job& job, const std::string& was, const std::string& now) {
    for (Leaf& l : job.leaves)
        if (l.slab == was) l.slab = now;
    for (Patch& p : job.makeup.patches)
        if (p.slab == was) p.slab = now;
}

void drop_flaw(Slab& slab, std::size_t flaw) {
    if (flaw < slab.flaws.size()) slab.flaws.erase(slab.flaws.begin() + static_cast<std::ptrdiff_t>(flaw));
}

void name_slab(Slab& slab, const std::string& name) { slab.name = name; }
void set_tree(Slab& slab, const std::string& tree) { slab.tree = tree; }

namespace {
const std::string& a_date(const std::string& date) {
    if (!date.empty() && !is_date(date)) throw Refusal(say("‘{}’ is not a date. Write it as 2025-03-30, or leave it empty", date));
    return date;
}
}  // namespace
void set_sawn_on(Slab& slab, const std::string& date) { slab.sawn_on = a_date(date); }
void set_came_on(Slab& slab, const std::string& date) { slab.came_on = a_date(date); }
void set_dried(Slab& slab, Dried dried) { slab.dried = dried; }
void set_looked(Slab& slab, bool Slab::*what, bool looked) { slab.*what = looked; }

void set_species(Slab& slab, const std::string& species) { slab.species = species; }
void set_cross_cut(Slab& slab, bool across) { slab.cross_cut = across; }

void retire(Slab& slab) { slab.retired = true; }

void take_other_face(Slab& slab, const TracedOutline& both, const TracedOutline& seen, FacePicture place) {
    // Seen from below: rows run the other way, slid across as the edges were.
    const Box mine = bounds(seen.a);
    const Box laid = bounds(both.b);
    place.mirrored = !place.mirrored;
    place.corner.y = -place.corner.y + ((laid.low.y + laid.high.y) / 2 + (mine.low.y + mine.high.y) / 2);
    slab.outline = both;
    slab.picture_b = std::move(place);
}

void number_slabs(Documents& docs, const std::vector<LayInLog>& from_the_lowest) {
    int number = 0;
    for (const LayInLog& lay : from_the_lowest) {
        ++number;
        const auto it = docs.slabs.find(lay.slab);
        if (it == docs.slabs.end()) continue;
        it->second.sequence = number;
        it->second.face_b_up = lay.over;
        it->second.ends_swapped = lay.ended;
    }
}

}  // namespace yb
