#include "core/shop/edit/tape_edits.h"

#include <algorithm>
#include <cctype>
#include <cmath>
#include <numbers>

#include "core/material/slab/slab.h"
#include "core/shop/edit/edits.h"
#include "core/shop/edit/slab_edits.h"

namespace yb {

namespace {

using Edge = std::optional<double> Station::*;

/// The other face stands as far outside this one as at the station before, until it is measured.
void repeat_lean(std::vector<Station>& all, std::size_t r, Edge own, Edge other) {
    if (r == 0 || !(all[r].*own) || all[r].*other || !(all[r - 1].*own) || !(all[r - 1].*other)) return;
    all[r].*other = *(all[r].*own) + *(all[r - 1].*other) - *(all[r - 1].*own);
}

void type_edge(Slab& slab, std::size_t r, std::size_t column, std::optional<double> v, double every_mm) {
    static constexpr Edge columns[] = {&Station::left_mm,        &Station::right_mm,     &Station::other_left_mm,
                                       &Station::other_right_mm, &Station::thickness_mm, &Station::thickness_right_mm};
    auto& all = slab.tape.stations;
    while (all.size() <= r) all.push_back({all.empty() ? 0 : all.back().x_mm + every_mm, {}, {}, {}, {}, {}, {}});
    if (column == 0) {
        all[r].x_mm = v.value_or(all[r].x_mm);
        return;
    }
    if (column > std::size(columns)) throw Refusal(say("a station has {}", counted(6, "reading", "readings")));
    all[r].*columns[column - 1] = v;
    if (column == 1) repeat_lean(all, r, &Station::left_mm, &Station::other_left_mm);
    if (column == 2) repeat_lean(all, r, &Station::right_mm, &Station::other_right_mm);
}

/// Its middle is moved, or it is drawn out to so much, about its middle.
void place_flaw(Flaw& f, std::size_t column, std::optional<double> v) {
    if (!v || f.outline.size() < 3) return;
    const Box b = bounds(f.outline);
    const Vec2 mid = lerp(b.low, b.high, 0.5);
    Vec2 by{0, 0};
    Vec2 times{1, 1};
    if (column == 4) by.x = *v - mid.x;
    if (column == 5) by.y = *v - mid.y;
    if (column >= 6 && !(*v > 0)) throw Refusal(say("A flaw is longer and wider than nothing."));
    if (column == 6) times.x = *v / std::max(0.1, b.width());
    if (column == 7) times.y = *v / std::max(0.1, b.height());
    for (Vec2& q : f.outline) q = Vec2{mid.x + (q.x - mid.x) * times.x, mid.y + (q.y - mid.y) * times.y} + by;
}

/// A flaw that is written down before it is drawn: in the middle of the slab, to be moved by its measures.
void new_flaw(Slab& slab, FlawKind kind) {
    const SlabShape shape = shape_of(slab);
    const double mid = shape.ring_a.empty() ? 300 : (shape.x0 + shape.x1) / 2;
    const Vec2 half = kind == FlawKind::crack || kind == FlawKind::pith ? Vec2{150, 3}
                      : kind == FlawKind::knot                          ? Vec2{20, 20}
                                                                        : Vec2{50, 15};
    Ring ring;
    constexpr int n = 16;
    for (int i = 0; i < n; ++i)
        ring.push_back({mid + half.x * std::cos(2 * std::numbers::pi * i / n), half.y * std::sin(2 * std::numbers::pi * i / n)});
    add_flaw(slab, kind, std::move(ring), false, false);
}

void type_flaw(Slab& slab, std::size_t r, std::size_t column, std::optional<double> v) {
    if (r >= slab.flaws.size()) return;
    Flaw& f = slab.flaws[r];
    if (column == 2) f.depth_mm = v, f.through = !v;
    if (column >= 4) return place_flaw(f, column, v);
    if (column != 3) return;
    if (!v || *v < 0 || *v > 1) throw Refusal(say("A share from 0 (comes to a point) to 1 (straight down) is wanted."));
    f.floor_share = *v;
}

void type_height(Slab& slab, bool face_b, std::size_t r, std::size_t column, std::optional<double> v) {
    HeightGrid& g = face_b ? slab.heights_b : slab.heights_a;
    if (r >= g.x_mm.size() || column > g.y_mm.size())
        throw Refusal(say("The grid has {} and {} across; there is no room for this reading.",
                          counted(static_cast<double>(g.x_mm.size()), "station", "stations"),
                          counted(static_cast<double>(g.y_mm.size()), "place", "places")));
    if (column > 0) g.at(r, column - 1) = v;
    else if (v) g.x_mm[r] = *v;
    // What is read by hand counts for more than the cloud it was first taken from.
    if (!face_b || slab.heights_b.x_mm == slab.heights_a.x_mm) slab.scan.clear();
}

}  // namespace

void type_reading(Slab& slab, TapeSheet sheet, std::size_t row, std::size_t column, std::optional<double> v, double every_mm) {
    if (sheet == TapeSheet::edges) type_edge(slab, row, column, v, every_mm);
    else if (sheet == TapeSheet::flaws) type_flaw(slab, row, column, v);
    else type_height(slab, sheet == TapeSheet::heights_b, row, column, v);
}

void type_flaw_word(Slab& slab, std::size_t row, std::size_t column, const std::string& typed) {
    if (row > slab.flaws.size() || (row == slab.flaws.size() && column > 0)) return;
    std::string word;
    set_name(word, typed);
    std::transform(word.begin(), word.end(), word.begin(), [](unsigned char c) { return std::tolower(c); });
    if (column == 1) {
        Flaw& flaw = slab.flaws[row];
        if (word != "a" && word != "b") throw Refusal(say("‘{}’: write A for the face that was up when it was measured, or B.", typed));
        flaw.face = word == "a" ? Face::a : Face::b;
        return;
    }
    std::string names;
    for (int k = 0; k <= static_cast<int>(FlawKind::scar); ++k) {
        const std::string name = name_of(static_cast<FlawKind>(k));
        names += (names.empty() ? "" : ", ") + name;
        if (word.empty() || name.rfind(word, 0) != 0) continue;
        if (row == slab.flaws.size()) new_flaw(slab, static_cast<FlawKind>(k));
        else slab.flaws[row].kind = static_cast<FlawKind>(k);
        return;
    }
    throw Refusal(say("‘{}’: the first letters of one of these are taken: {}.", typed, names));
}

void space_stations(Slab& slab, std::size_t from_row, double every_mm) {
    if (!(every_mm >= 10 && every_mm <= 3000)) throw Refusal(say("stations stand from {} to {} apart.", mm(10), mm(3000)));
    auto& all = slab.tape.stations;
    for (std::size_t i = from_row; i < all.size(); ++i) all[i].x_mm = (i == 0 ? -every_mm : all[i - 1].x_mm) + every_mm;
}

}  // namespace yb
