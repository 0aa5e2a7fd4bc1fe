#include "core/steps/flat/lanes.h"

#include <algorithm>
#include <cmath>
#include <optional>
#include <stdexcept>

#include "core/steps/flat/sled.h"

namespace yb {

Layers layers_of(double highest_mm, double allowance_mm, const Sled& sled) {
    if (!(sled.depth_mm > 0)) throw std::invalid_argument("a layer has to be deeper than 0 mm: set how deep the cutter takes");
    const auto layers = [&](double mm) { return std::max(0, static_cast<int>(std::ceil(mm / sled.depth_mm - 1e-6))); };
    Layers out;
    if (highest_mm <= 1e-6) return out;
    const double light = std::min(sled.light_mm, highest_mm);
    // The light pass is the last of what is left for after the rest, or of all where nothing is left.
    const bool lightly = light > 1e-6 && light < highest_mm - 1e-6;
    const double rest = std::min(allowance_mm, highest_mm);
    const double rough_from = std::max(rest, lightly ? light : 0.0);
    const int rough = layers(highest_mm - rough_from);
    for (int k = 0; k < rough; ++k) out.levels_mm.push_back(rough_from + (rough - 1 - k) * sled.depth_mm);
    const auto to = [&](double level, double from) {
        const int n = layers(from - level);
        for (int k = 0; k < n; ++k) out.levels_mm.push_back(level + (n - 1 - k) * sled.depth_mm), ++out.last;
    };
    if (lightly) {
        if (rest > light + 1e-6) to(light, rest);
        out.levels_mm.push_back(0), ++out.last;
    } else {
        to(0, rest);
    }
    return out;
}

namespace {

/// Heights along one lane above the finished plane: the same profile serves every layer.
struct Lane {
    double at = 0;
    std::vector<double> run, above;
};

}  // namespace

double lanes_s(const LayerWork& work, const Sled& sled) { return work.lanes * sled.turn_s + work.cut_mm / sled.feed_mm_s; }

LanePlan plan_lanes(const Ring& piece, const Sled& sled, LaneWay way, double allowance_mm, const std::function<double(Vec2)>& above) {
    LanePlan out;
    const bool along = way == LaneWay::along;
    // Lanes along are lanes across with the axes exchanged.
    const auto turned = [along](Vec2 p) { return along ? Vec2{p.y, p.x} : p; };
    Ring ring;
    for (const Vec2 p : piece) ring.push_back(turned(p));
    const Box box = bounds(ring);
    const double step = lane_mm(sled);
    out.lanes = lanes_for(box.width(), sled);
    std::vector<Lane> lanes;
    for (int i = 0; i < out.lanes; ++i) {
        Lane lane;
        lane.at = std::min(box.low.x + i * step, box.high.x);
        const double inside = std::clamp(lane.at, box.low.x + 1e-6, box.high.x - 1e-6);
        for (const Span1 s : cut_at_x(ring, inside)) {
            const int n = std::max(2, static_cast<int>((s.to - s.from) / 12) + 1);
            for (int k = 0; k < n; ++k) {
                const double y = s.from + (s.to - s.from) * k / (n - 1);
                lane.run.push_back(y);
                lane.above.push_back(above(turned({inside, y})));
                out.highest_mm = std::max(out.highest_mm, lane.above.back());
            }
        }
        lanes.push_back(std::move(lane));
    }
    out.layers = layers_of(out.highest_mm, allowance_mm, sled);
    const int rough = static_cast<int>(out.layers.levels_mm.size()) - out.layers.last;
    const double reach = sled.cutter_mm / 2;
    for (int layer = 0; layer < static_cast<int>(out.layers.levels_mm.size()); ++layer) {
        const double level = out.layers.levels_mm[static_cast<std::size_t>(layer)];
        const double cut_before = out.cut_mm;
        LayerWork work;
        for (const Lane& lane : lanes) {
            // Stretches where wood stands above the level, half a cutter more at both ends, joined where they meet.
            const std::size_t before = out.passes.size();
            std::optional<Span1> open;
            const auto close = [&] {
                if (!open) return;
                // Seen from above a router's cutter turns clockwise: fed against it, the wood that is still there lies at the left.
                Vec2 from = turned({lane.at, open->from});
                Vec2 to = turned({lane.at, open->to});
                if (!along) std::swap(from, to);
                out.passes.push_back({layer, from, to});
                out.cut_mm += open->to - open->from;
                open.reset();
            };
            for (std::size_t i = 0; i < lane.run.size(); ++i) {
                if (lane.above[i] <= level + 1e-6) continue;
                const Span1 here{lane.run[i] - reach, lane.run[i] + reach};
                if (open && here.from <= open->to) open->to = here.to;
                else close(), open = here;
            }
            close();
            if (out.passes.size() == before) continue;
            ++work.lanes;
        }
        work.cut_mm = out.cut_mm - cut_before;
        out.passes_cut += work.lanes;
        const double seconds = sled.layer_s + lanes_s(work, sled);
        out.hours += seconds / 3600;
        if (layer >= rough) out.last_hours += seconds / 3600;
        out.each.push_back(work);
    }
    return out;
}

}  // namespace yb
