#include "core/steps/rack/looked.h"

#include <algorithm>
#include <cmath>

#include "core/ground/calendar/calendar.h"

namespace yb {

std::vector<LookedAt> looked_at(const Slab& s, const SlabShape& shape) {
    std::vector<LookedAt> out;
    const auto item = [&](const char* key, const char* label, bool known, Phrase says, bool or_none = false) {
        out.push_back({key, label, known, std::move(says), true, or_none});
    };
    const bool edges = !shape.ring_a.empty();
    const SlabMeans means = shape.usable ? means_of(shape, s.cross_cut) : SlabMeans{};
    const Box box = edges ? bounds(shape.ring_a) : Box{};
    item("edges", "Length and widths", edges,
         edges
             ? shape.usable ? say("{}, {} to {}", mm(box.width()), mm(means.narrowest_mm), mm(means.widest_mm)) : say("{}", mm(box.width()))
             : say("nothing can be laid on it without"));
    item("thickness", "Thickness", shape.usable,
         shape.usable ? say("{} to {}", fine(means.thinnest_mm), fine(means.thickest_mm)) : say("how thick a top it gives"));
    item("moisture", "Moisture", s.moisture_pct.has_value(),
         !s.moisture_pct          ? say("slots and drying")
         : is_date(s.moisture_on) ? say("{}, read {}", percent(*s.moisture_pct), s.moisture_on)
                                  : say("{}, its day not said", percent(*s.moisture_pct)));
    const bool a = s.heights_a.has_readings();
    const bool b = s.heights_b.has_readings();
    item("twist", "Twist, cup and bow", a || b,
         a && b ? say("both faces read")
         : a    ? say("face A read")
         : b    ? say("face B read")
                : say("what it finishes at, its shims"));
    item("faces", "Which face shows", s.faces_looked, s.faces_looked ? say("both looked at") : say("turn it over and look"), true);
    const auto n =
        static_cast<double>(std::count_if(s.flaws.begin(), s.flaws.end(), [](const Flaw& f) { return f.kind != FlawKind::pith; }));
    item("flaws", "Flaws", n > 0 || s.no_flaws,
         n > 0        ? say("{} marked", count(n))
         : s.no_flaws ? say("none found")
                      : say("cracks, rot, knots, pockets"),
         true);
    const bool pith_drawn = std::any_of(s.flaws.begin(), s.flaws.end(), [](const Flaw& f) { return f.kind == FlawKind::pith; });
    item("pith", "Pith", s.pith_mm || pith_drawn || s.no_pith || s.cross_cut,
         s.pith_mm     ? say("{} from the middle", mm(std::abs(*s.pith_mm)))
         : pith_drawn  ? say("drawn")
         : s.cross_cut ? say("in the face: a disc")
         : s.no_pith   ? say("can't be told")
                       : say("how it moves"),
         true);
    item("price", "Price", s.price.has_value(), s.price ? say("{}", number(*s.price)) : say("what a square metre costs"));
    item("picture", "Picture", s.picture_a || s.picture_b,
         s.picture_a && s.picture_b ? say("both faces")
         : s.picture_a              ? say("face A")
         : s.picture_b              ? say("face B")
                                    : say("to choose by, to match"));
    out.push_back(
        {"wood", "Wood", !s.species.empty(), s.species.empty() ? say("movement and weight") : say("{}", s.species), false, false});
    out.push_back({"tree", "Tree", !s.tree.empty(), s.tree.empty() ? say("what matches it") : say("{}", s.tree), false, false});
    return out;
}

bool only_blank(std::string_view key) {
    return key == "rack.stations" || key == "rack.edges" || key == "rack.thickness" || key == "rack.no_heights";
}

}  // namespace yb
