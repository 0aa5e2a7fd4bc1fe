#include "core/shop/templates/templates.h"

#include <cmath>
#include <numbers>

#include "core/material/slab/slab.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/shop/job/shop.h"
#include "core/shop/job/steps.h"
#include "core/steps/join/join.h"
#include "core/steps/lay/lay.h"
#include "core/steps/makeup/curve.h"
#include "core/steps/makeup/makeup.h"
#include "core/steps/pour/pour.h"
#include "core/steps/top/top.h"
#include "core/steps/under/under.h"

namespace yb {

std::vector<DrawnPath> drawn_slab(const Slab& slab, const SlabShape& shape) {
    std::vector<DrawnPath> out{{shape.ring_a, true, "face A"}, {shape.ring_b, true, "face B"}};
    for (const Flaw& f : slab.flaws) out.push_back({f.outline, true, std::string(name_of(f.kind)) + (f.face == Face::a ? " A" : " B")});
    return out;
}

std::vector<DrawnPath> drawn_top(const Plan& plan, const Placement& placement, bool as_template) {
    std::vector<DrawnPath> out{{plan.lay->outline, true, "top"}};
    if (as_template) {
        const Frame f = placement.frame();
        for (Vec2& p : out[0].points) p = f.from_slab(p);
        return out;
    }
    if (const SlabShape* shape = plan.shape()) out.push_back({shape->ring_a, true, "face A"});
    for (const auto& [a, b] : plan.lay->rough_cuts) out.push_back({{a, b}, false, "rough cut"});
    for (const auto& [a, b] : plan.lay->finish_cuts) out.push_back({{a, b}, false, "cut"});
    return out;
}

namespace {

constexpr double between_mm = 40;  ///< pieces that are drawn beside one another

Ring box_at(Vec2 low, double along, double across) { return {low, low + Vec2{along, 0}, low + Vec2{along, across}, low + Vec2{0, across}}; }

/// A slot from one end of its middle line to the other, so wide.
Ring slot(Vec2 from, Vec2 to, double wide) {
    const Vec2 way = length(to - from) > 1e-9 ? (to - from) * (1 / length(to - from)) : Vec2{0, 1};
    const double first = std::atan2(way.y, way.x) - std::numbers::pi / 2;
    Ring out;
    for (const auto& [end, turned] : {std::pair{to, 0.0}, {from, std::numbers::pi}})
        for (int i = 0; i <= 24; ++i) {
            const double a = first + turned + std::numbers::pi * i / 24;
            out.push_back(end + Vec2{std::cos(a), std::sin(a)} * (wide / 2));
        }
    return out;
}

/// The upturned top as one looks at it: what was left is right.
Vec2 from_below(Vec2 q) { return {q.x, -q.y}; }
Ring from_below(const Ring& ring) {
    Ring out;
    for (auto it = ring.rbegin(); it != ring.rend(); ++it) out.push_back(from_below(*it));
    return out;
}

/// What is cut into steel for a hole: a slot that reaches from its inner end outward, or a round one.
Ring opening(const Slot& s, const UnderChoices& c) {
    if (s.round || c.fixing != Fixing::slots) return circle_ring(from_below(s.uv), s.made.opening_mm);
    const Vec2 inner = s.uv - s.way * (s.bolt_from_inner_mm - c.bolt_mm / 2);
    const Vec2 outer = inner + s.way * (s.length_mm - c.bolt_mm);
    return slot(from_below(inner), from_below(outer), c.bolt_mm);
}

}  // namespace

std::vector<DrawnPath> drawn_form(const Plan& plan, const Job& job) {
    std::vector<DrawnPath> out;
    if (plan.pour->lifts.empty()) return out;
    const Form& f = plan.pour->form;
    const double l = f.inside_length_mm;
    const double w = f.inside_width_mm;
    const double t = f.thick_mm;
    const Vec2 low = f.middle - Vec2{l / 2, w / 2};
    out.push_back({box_at(low, l, w), true, "form, bottom"});
    for (const double y : {low.y - t, low.y + w}) out.push_back({box_at({low.x - t, y}, l + 2 * t, t), true, "form, long side"});
    for (const double x : {low.x - t, low.x + l}) out.push_back({box_at({x, low.y}, t, w), true, "form, end"});
    for (const Compartment& c : plan.pour->compartments) out.push_back({c.above, true, "river"});
    for (const Dam& d : plan.pour->dams)
        if (d.length_mm > 1) out.push_back({{d.at - Vec2{0, d.length_mm / 2}, d.at + Vec2{0, d.length_mm / 2}}, false, "dam"});
    for (const Divider& d : job.pour.dividers) {
        for (const Compartment& c : plan.pour->compartments)
            if (c.part == 0 && static_cast<int>(c.joint) + 1 == d.river)
                for (const Span1 cut : cut_at_x(plan.top->above, d.u_mm))
                    out.push_back({{{d.u_mm, cut.from}, {d.u_mm, cut.to}}, false, "divider"});
    }
    return out;
}

std::vector<DrawnPath> drawn_panels(const Plan& plan, const Job& job) {
    std::vector<DrawnPath> out;
    const double l = std::max(job.pour.panel_long_mm, job.pour.panel_wide_mm);
    const double w = std::min(job.pour.panel_long_mm, job.pour.panel_wide_mm);
    double y = 0;
    for (const Sheet& sheet : plan.pour->form.sheets) {
        out.push_back({box_at({0, y}, l, w), true, "panel"});
        for (const NestedPart& p : sheet.parts) out.push_back({box_at({p.x_mm, y + p.y_mm}, p.length_mm, p.width_mm), true, p.name});
        y += w + between_mm;
    }
    return out;
}

std::vector<DrawnPath> drawn_ties(const Job& job, const std::vector<double>& bushings) {
    std::vector<DrawnPath> out;
    const auto pair = bushings_for(job.join.bit_mm, bushings);
    for (std::size_t i = 0; i < job.join.ties.size(); ++i) {
        const std::string number = std::to_string(i + 1);
        const Ring tie = outline_of(job.join.ties[i]);
        out.push_back({tie, true, "bow tie " + number});
        if (pair) out.push_back({widened(tie, (pair->outer_mm - job.join.bit_mm) / 2), true, "template " + number});
    }
    return out;
}

std::vector<DrawnPath> drawn_cauls(const Plan& plan) {
    std::vector<DrawnPath> out;
    for (std::size_t i = 0; i < plan.join->cauls.size(); ++i)
        out.push_back({plan.join->cauls[i].shape, true, "caul " + std::to_string(i + 1)});
    return out;
}

std::vector<DrawnPath> drawn_drilling(const Plan& plan, const Job& job) {
    std::vector<DrawnPath> out;
    if (plan.under->slots.empty()) return out;
    const Ring& rim = plan.top->below.size() > 2 ? plan.top->below : plan.top->above;
    out.push_back({from_below(rim), true, "underside"});
    const UnderChoices& c = job.under;
    const double half = job.top.length_mm / 2;
    for (const double v : lines_held(*plan.under)) out.push_back({{{-half, -v}, {half, -v}}, false, "fixed line"});
    for (const LegPlate& p : c.plates) out.push_back({from_below(footprint(p)), true, c.plate_let_in ? "plate, let in" : "plate"});
    for (const Ring& notch : notches_of(c)) out.push_back({from_below(notch), true, "notch"});
    for (const Pocket& k : plan.under->pockets) {
        Channel pocket = c.channels.at(k.channel);
        pocket.length_mm = k.length_mm;
        out.push_back({from_below(footprint(pocket)), true, "pocket"});
    }
    for (const Slot& s : plan.under->slots) {
        const Vec2 at = from_below(s.uv);
        out.push_back({circle_ring(at, s.made.drill_mm), true, "drill"});
        out.push_back({{at - Vec2{6, 0}, at + Vec2{6, 0}}, false, "middle"});
        out.push_back({{at - Vec2{0, 6}, at + Vec2{0, 6}}, false, "middle"});
    }
    return out;
}

std::vector<DrawnPath> drawn_fixing(const Plan& plan, const Job& job) {
    const UnderChoices& c = job.under;
    const Slot* furthest = nullptr;
    for (const Slot& s : plan.under->slots)
        if (!s.round && s.part.kind == "plate" && (!furthest || s.length_mm > furthest->length_mm)) furthest = &s;
    if (!furthest || (c.fixing != Fixing::clips && c.fixing != Fixing::buttons)) return {};
    // Seen along the rail: the underside at 0, the top below it as it lies upturned; outward to the right.
    constexpr double block_mm = 40, kerf_from_mm = 12, tongue_high_mm = 8, rail_mm = 45;
    const double gap = furthest->made.gap_mm;
    const double t = plan.top->thickness_mm;
    std::vector<DrawnPath> out;
    const auto add = [&](Ring path, bool closed, std::string what) { out.push_back({std::move(path), closed, std::move(what)}); };
    add(box_at({-block_mm - 60, -t}, block_mm + 140, t), true, "top, underside up");
    add(box_at({-tongue_mm, -kerf_from_mm - tongue_high_mm - 1}, tongue_mm + gap, tongue_high_mm + 2), true, "kerf");
    add(box_at({-tongue_mm, -kerf_from_mm - tongue_high_mm}, tongue_mm, tongue_high_mm), true, "tongue, on the day");
    add(box_at({-tongue_mm - block_mm, 0}, block_mm, rail_mm), true, "rail of the base");
    add({{0, -kerf_from_mm}, {gap, -kerf_from_mm}}, false, "set back");
    return out;
}

std::vector<DrawnPath> drawn_plates(const Plan& plan, const Job& job) {
    std::vector<DrawnPath> out;
    double x = 0;
    for (std::size_t i = 0; i < job.under.plates.size() && plan.under->ready; ++i) {
        const LegPlate& p = job.under.plates[i];
        const std::string part = key_of({"plate", i});
        const Vec2 move = Vec2{x + p.along_mm / 2, 0} - from_below(Vec2{p.u_mm, p.v_mm});
        const auto moved = [&](Ring ring) {
            for (Vec2& q : ring) q = q + move;
            return ring;
        };
        out.push_back({moved(from_below(footprint(p))), true, part});
        for (const Slot& s : plan.under->slots)
            if (s.part == Part{"plate", i}) out.push_back({moved(opening(s, job.under)), true, part + ", opening"});
        x += p.along_mm + between_mm;
    }
    return out;
}

std::vector<DrawnPath> drawn_base(const Plan& plan) {
    std::vector<DrawnPath> out;
    const BasePlan& b = plan.under->base;
    if (b.outline.size() > 2) out.push_back({b.outline, true, "base, outside"});
    // Every piece as it stands on the floor, or over it.
    for (const BasePiece& piece : b.pieces) {
        std::vector<Vec2> down;
        for (const Vec3 q : piece.corners) down.push_back({q.x, q.y});
        out.push_back({convex_hull(std::move(down)), true, b.parts.at(piece.part).name});
    }
    return out;
}

std::vector<DrawnPath> drawn_carved(const Plan& plan) {
    std::vector<DrawnPath> out;
    for (const CarvedLine& c : plan.join->carved)
        out.push_back({{c.line.begin(), c.line.end()}, false, c.left ? "carved, left" : "carved, right"});
    if (!out.empty()) out.push_back({plan.top->above, true, "top"});
    return out;
}

std::vector<TemplateRow> templates() {
    std::vector<TemplateRow> all;
    for (const StepRow& row : steps())
        if (row.drawings) all.insert(all.end(), row.drawings().begin(), row.drawings().end());
    return all;
}

std::optional<TemplateRow> find_template(std::string_view key) {
    for (const TemplateRow& row : templates())
        if (row.key == key) return row;
    return {};
}

std::vector<DrawnPath> drawn_patches(const MakeUpChoices& choices, const std::vector<double>& bushings) {
    std::vector<DrawnPath> out;
    const auto pair = bushings_for(choices.cutter_mm, bushings);
    for (std::size_t i = 0; i < choices.patches.size(); ++i) {
        const std::string number = std::to_string(i + 1);
        out.push_back({choices.patches[i].outline, true, "patch " + number});
        // The recess is cut with the larger bushing: its edge stands in from the template's by half what that exceeds the cutter.
        if (pair)
            out.push_back({widened(choices.patches[i].outline, (pair->outer_mm - choices.cutter_mm) / 2), true, "template " + number});
    }
    return out;
}

std::vector<DrawnPath> drawn_joint(const Plan& plan, const MakeUpChoices& choices, const std::vector<double>& bushings) {
    const auto& joints = plan.makeup->joints;
    if (joints.empty() || joints[joints.size() / 2].river) return {};
    const JointPlan& j = joints[joints.size() / 2];
    std::vector<Vec2> line;
    for (const JointStation& s : j.along) line.push_back({s.u, s.v});
    std::vector<DrawnPath> out{{line, false, "joint"}};
    // The template lies on the right leaf: its edge that far to the right of the joint.
    if (const auto pair = bushings_for(choices.cutter_mm, bushings))
        out.push_back({offset_line(line, -pair->template_off_mm), false, "template"});
    out.push_back({plan.makeup->leaves[j.right].part, true, "right leaf"});
    out.push_back({plan.makeup->leaves[j.left].part, true, "left leaf"});
    return out;
}

}  // namespace yb
