#include "core/material/slab/slab.h"

#include <algorithm>
#include <array>

#include "core/material/wood/wood.h"

namespace yb {

bool HeightGrid::has_readings() const {
    return std::any_of(gap_mm.begin(), gap_mm.end(), [](const auto& g) { return g.has_value(); });
}

const char* name_of(FlawKind kind) {
    static constexpr std::array names{"crack", "void", "bark pocket", "knot", "soft wood", "insect holes", "pith", "saw scar"};
    return names.at(static_cast<std::size_t>(kind));
}

const char* a_flaw(FlawKind kind) {
    static constexpr std::array names{"a crack",   "a void",       "a bark pocket", "a knot",
                                      "soft wood", "insect holes", "the pith",      "a saw scar"};
    return names.at(static_cast<std::size_t>(kind));
}

Ring SlabShape::ring_at(double share) const {
    Ring out(ring_a.size());
    for (std::size_t i = 0; i < ring_a.size(); ++i) out[i] = lerp(ring_b[i], ring_a[i], share);
    return out;
}

namespace {
HeightGrid mirrored(const HeightGrid& g) {
    HeightGrid m = g;
    const std::size_t n = g.y_mm.size();
    for (std::size_t j = 0; j < n; ++j) {
        m.y_mm[j] = -g.y_mm[n - 1 - j];
        for (std::size_t i = 0; i < g.x_mm.size(); ++i) m.at(i, j) = g.at(i, n - 1 - j);
    }
    return m;
}

/// Seen from the other side; both rings of a pair reversed alike stay matched.
Ring flipped(Ring r) {
    for (Vec2& p : r) p.y = -p.y;
    std::reverse(r.begin(), r.end());
    return r;
}

std::optional<FacePicture> flipped(std::optional<FacePicture> p) {
    if (p) p->corner.y = -p->corner.y, p->mirrored = !p->mirrored;
    return p;
}
}  // namespace

Slab turned_over(const Slab& slab) {
    Slab t = slab;
    for (Station& s : t.tape.stations) {
        const Station old = s;
        const auto other = [](std::optional<double> own, std::optional<double> face_a, double lean) {
            if (own || !face_a) return own;
            return std::optional(*face_a + lean);
        };
        // Left and right change places with the faces.
        s.left_mm = other(old.other_right_mm, old.right_mm, slab.tape.lean_right_mm);
        s.right_mm = other(old.other_left_mm, old.left_mm, slab.tape.lean_left_mm);
        s.other_left_mm = old.right_mm;
        s.other_right_mm = old.left_mm;
        if (old.thickness_right_mm) {
            s.thickness_mm = old.thickness_right_mm;
            s.thickness_right_mm = old.thickness_mm;
        }
    }
    t.tape.lean_left_mm = -slab.tape.lean_right_mm;
    t.tape.lean_right_mm = -slab.tape.lean_left_mm;
    if (slab.outline) {
        t.outline->a = flipped(slab.outline->b);
        t.outline->b = flipped(slab.outline->a);
    }
    t.picture_a = flipped(slab.picture_b);
    t.picture_b = flipped(slab.picture_a);
    t.heights_a = mirrored(slab.heights_b);
    t.heights_b = mirrored(slab.heights_a);
    t.truth_a = slab.truth_b ? std::optional(mirrored(*slab.truth_b)) : std::nullopt;
    t.truth_b = slab.truth_a ? std::optional(mirrored(*slab.truth_a)) : std::nullopt;
    for (Flaw& f : t.flaws) {
        f.face = f.face == Face::a ? Face::b : Face::a;
        for (Vec2& p : f.outline) p.y = -p.y;
        std::reverse(f.outline.begin(), f.outline.end());
    }
    return t;
}

double volume_m3(const SlabShape& shape, const Ring& region, double thickness_mm, double low, double high) {
    const auto level = [&](double share) { return intersection_area(region, shape.ring_at(share)); };
    const double mean = (level(low) + 4 * level((low + high) / 2) + level(high)) / 6;
    return mean * thickness_mm * (high - low) * 1e-9;
}

namespace {

/// Diameters through the middle of a face, at 90 directions.
void diameters(const Ring& ring, SlabMeans& m) {
    const Vec2 c = centroid(ring);
    m.width_mm = m.widest_mm = 0;
    m.narrowest_mm = 1e300;
    constexpr int n = 90;
    for (int i = 0; i < n; ++i) {
        const Frame f{c, 180.0 * i / n};
        const auto cut = cut_at_x(f.from_slab(ring), 0);
        if (cut.empty()) continue;
        const double d = cut.back().to - cut.front().from;
        m.width_mm += d / n;
        if (d < m.narrowest_mm) m.narrowest_mm = d, m.narrow_x_mm = c.x;
        m.widest_mm = std::max(m.widest_mm, d);
    }
}

}  // namespace

double litres_of(const SlabShape& s, const SlabMeans& m) {
    return (area(s.ring_b) + 4 * area(s.ring_at(0.5)) + area(s.ring_a)) / 6 * m.thickness_mm * 1e-6;
}

double usable_m2(const SlabShape& s, const SlabMeans& m, bool cross_cut) {
    if (cross_cut) return std::min(area(s.ring_a), area(s.ring_b)) * 1e-6;
    return (s.x1 - s.x0) * m.narrowest_mm * 1e-6;
}

SlabMeans means_of(const SlabShape& s, bool cross_cut) {
    SlabMeans m;
    constexpr int n = 60;
    double weight = 0;
    for (int i = 0; i < n; ++i) {
        const double x = s.x0 + (s.x1 - s.x0) * (i + 0.5) / n;
        const auto a = cut_at_x(s.ring_a, x);
        if (a.empty()) continue;
        const double w = a.back().to - a.front().from;
        constexpr int k = 9;
        for (int j = 0; j < k; ++j) {
            const double t = s.thickness_at({x, a.front().from + w * (j + 0.5) / k});
            m.thickness_mm += t * w;
            weight += w;
            m.thinnest_mm = std::min(m.thinnest_mm, t);
            m.thickest_mm = std::max(m.thickest_mm, t);
        }
    }
    if (weight > 0) m.thickness_mm /= weight;
    if (cross_cut) {
        diameters(s.ring_a, m);
    } else {
        const Sides sides = sides_of(s.ring_a);
        const double ends = (s.x1 - s.x0) / 100;
        const auto between = [&](const std::vector<Vec2>& side) { return stretch(side, s.x0 + ends, s.x1 - ends); };
        const Apart across = apart(between(sides.low), between(sides.high));
        m.width_mm = across.mean_mm;
        m.narrowest_mm = across.narrowest_mm, m.narrow_x_mm = across.narrowest_x;
        m.widest_mm = across.widest_mm;
    }
    return m;
}

double board_feet(const SlabShape& s, const SlabMeans& m) {
    return area(s.ring_a) * m.thickness_mm / (25.4 * 25.4 * 25.4) / 144;  // length × mean width is the face's area
}

std::optional<double> density_of(const Slab& slab) {
    const Species* sp = find_species(slab.species);
    if (!sp || !sp->specific_gravity_12) return {};
    return density(*sp->specific_gravity_12, slab.moisture_pct.value_or(12));
}

std::vector<Figure> figures_of(const Slab& slab, const SlabShape& s, const SlabMeans& m) {
    std::vector<Figure> out;
    if (!s.usable) return out;
    const double len = s.x1 - s.x0;
    out.push_back({"rack.size",
                   "Length",
                   mm(len),
                   {},
                   {},
                   {"last station − first station", {{"first", along(s.x0), "tape"}, {"last", along(s.x1), "tape"}}, "measured"}});
    out.push_back({"rack.width",
                   "Narrowest and widest",
                   mm(m.narrowest_mm),
                   mm(m.widest_mm),
                   slab.cross_cut ? say("across the face, through its middle") : say("narrowest at {}", along(m.narrow_x_mm)),
                   {slab.cross_cut ? "diameters through the middle of face A, 90 directions"
                                   : "left + right distance from the chalk line, face A, at every corner of its outline, the last "
                                     "hundredth at either end left out",
                    {{"mean", mm(m.width_mm), "tape"}},
                    "edges run as a monotone cubic between stations"}});
    out.push_back({"rack.thickness",
                   "Thickness",
                   fine(m.thinnest_mm),
                   fine(m.thickest_mm),
                   {},
                   {"height of face A − height of face B over the slab",
                    {{"mean", fine(m.thickness_mm), "caliper and straightedge"}},
                    s.heights_a || s.heights_b ? "heights read" : "caliper only: faces taken as flat"}});
    if (const auto rho = density_of(slab)) {
        const double litres = litres_of(s, m);
        out.push_back({"rack.mass",
                       "Weighs about",
                       kg(litres / 1000 * *rho),
                       {},
                       say("an estimate, bark not counted"),
                       {"volume × 1000 × G12 × (1 + M/100)",
                        {{"volume, litres", number(litres), "matched rings, Simpson's rule"},
                         {"density, kg/m³", number(*rho), "species table"},
                         {"moisture", percent(slab.moisture_pct.value_or(12)), slab.moisture_pct ? "meter" : "no reading: 12 % taken"}},
                        "Wood Handbook FPL-GTR-190, table 5-3a"}});
    }
    const double feet = board_feet(s, m);
    out.push_back({"rack.board_feet",
                   "Board feet",
                   number(std::round(feet * 10) / 10),
                   {},
                   {},
                   {"length × mean width × mean thickness / 144, in inches",
                    {{"length", mm(len), "tape"},
                     {"mean width", mm(m.width_mm), "tape"},
                     {"mean thickness", fine(m.thickness_mm), "caliper and straightedge"}},
                    "trade measure"}});
    if (const double usable = usable_m2(s, m, slab.cross_cut); slab.price && usable > 0 && feet > 0) {
        const auto cents = [](double v) { return number(std::round(v * 100) / 100); };
        out.push_back({"rack.price",
                       "Price a board foot, a usable m²",
                       cents(*slab.price / feet),
                       cents(*slab.price / usable),
                       slab.cross_cut ? say("usable: the smaller face") : say("usable: length × narrowest width"),
                       {slab.cross_cut ? "price / board feet; price / area of the smaller face"
                                       : "price / board feet; price / (length × narrowest width)",
                        {{"price", number(*slab.price), "what you typed"},
                         {"board feet", number(std::round(feet * 10) / 10), "mean width and thickness"},
                         {"usable", square_metres(usable), "face A"}},
                        "trade measure"}});
    }
    return out;
}

std::vector<Thing> flaw_things(const Slab& slab, const SlabShape& shape) {
    std::vector<Thing> out;
    for (std::size_t i = 0; i < slab.flaws.size(); ++i) {
        const Flaw& f = slab.flaws[i];
        const auto nth = std::to_string(i + 1);
        Thing t{std::string(name_of(f.kind)) + " " + nth, "flaw", i,
                say("Flaw {}: {}", count(static_cast<double>(i) + 1), name_of(f.kind))};
        t.area = f.outline;
        const Box box = bounds(f.outline);
        const Vec2 at = centroid(f.outline);
        if (f.through)
            t.figures.push_back({"flaw.depth",
                                 "Through, thick there",
                                 fine(shape.usable ? shape.thickness_at(at) : 0),
                                 {},
                                 say("open on both faces"),
                                 {"thickness of the slab at its middle", {}, "tape table and heights"}});
        else
            t.figures.push_back(
                {"flaw.depth",
                 f.depth_mm ? "Deep" : "How deep? Across it is",
                 fine(f.depth_mm.value_or(std::min(box.width(), box.height()))),
                 {},
                 f.depth_mm ? say("from the face it is drawn on") : say("nobody probed it: type its depth in the table of flaws"),
                 {"as probed", {}, "table of flaws"}});
        t.figures.push_back({"flaw.size", "Along and across", mm(box.width()), mm(box.height()), {}, {"its outline", {}, "as drawn"}});
        t.figures.push_back({"flaw.at", "From the left end", along(at.x), {}, {}, {"middle of its outline", {}, "as drawn"}});
        if (const auto cut = cut_at_x(shape.ring_a, at.x); !cut.empty())
            t.figures.push_back({"flaw.edge",
                                 "To the nearer edge",
                                 mm(std::max(0.0, std::min(cut.back().to - box.high.y, box.low.y - cut.front().from))),
                                 {},
                                 {},
                                 {"edge of the show face − its outline, across", {}, "tape table"}});
        out.push_back(std::move(t));
    }
    return out;
}

}  // namespace yb
