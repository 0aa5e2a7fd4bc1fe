#include "core/templates/templates.h"

#include "core/job/plan.h"
#include "core/lay/lay.h"
#include "core/makeup/curve.h"
#include "core/makeup/makeup.h"
#include "core/slab/slab.h"

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
