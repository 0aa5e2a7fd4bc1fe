#include "core/steps/flat/machine.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <stdexcept>

#include <fmt/format.h>

#include "core/ground/fields/walk.h"
#include "core/steps/flat/sled.h"

namespace yb {

namespace {

constexpr double clear_mm = 10;   ///< above all wood: where the cutter travels
constexpr double near_mm = 2;     ///< above what the layer before left: where it begins to go down slowly
constexpr double run_out_mm = 3;  ///< beyond half a cutter, off the edge of the piece
constexpr double sample_mm = 12;  ///< of a strip, along it

/// One lane: its strip between two lines, and how high wood stands in each stretch of it.
struct Strip {
    double lane = 0;          ///< where the cutter's middle runs
    std::vector<double> run;  ///< along the lane, rising
    std::vector<double> top;  ///< highest place between run[k] and run[k + 1]
};

/// The side as its lanes see it: q.x counts lanes, q.y runs along them.
class Lanes {
  public:
    explicit Lanes(const MachinedSide& side) : side_(side), along_(side.lanes == LaneWay::along) {
        for (const Vec2 p : side.piece) piece_.push_back(turned(p));
        if (along_) std::reverse(piece_.begin(), piece_.end());
        for (const double x : side.off.x()) (along_ ? run_lines_ : lane_lines_).push_back(x - side.rough.low.x);
        for (const double y : side.off.y()) (along_ ? lane_lines_ : run_lines_).push_back(side.to_machine({0, y}).y);
    }
    const Ring& piece() const { return piece_; }

    /// How high wood stands between two lines, cut up at the surface's own lines.
    Strip strip(double middle, double low_lane, double high_lane) const {
        Strip out;
        out.lane = middle;
        const Box box = bounds(piece_);
        double low = 1e300;
        double high = -1e300;
        const auto reach = [&](double y) { low = std::min(low, y), high = std::max(high, y); };
        for (const double x : {low_lane, middle, high_lane})
            for (const Span1 s : cut_at_x(piece_, std::clamp(x, box.low.x + 1e-6, box.high.x - 1e-6))) reach(s.from), reach(s.to);
        for (const Vec2 p : piece_)
            if (p.x >= low_lane && p.x <= high_lane) reach(p.y);
        if (low > high) return out;
        std::vector<double> lines{low_lane, high_lane};
        for (const double u : lane_lines_)
            if (u > low_lane && u < high_lane) lines.push_back(u);
        const auto n = std::max(1, static_cast<int>(std::ceil((high - low) / sample_mm)));
        for (int k = 0; k <= n; ++k) out.run.push_back(low + (high - low) * k / n);
        for (const double v : run_lines_)
            if (v > low && v < high) out.run.push_back(v);
        std::sort(out.run.begin(), out.run.end());
        out.run.erase(std::unique(out.run.begin(), out.run.end()), out.run.end());
        std::vector<double> line;
        for (const double v : out.run) {
            double most = -1e300;
            for (const double u : lines) most = std::max(most, side_.before(turned({u, v})));
            line.push_back(most);
        }
        for (std::size_t k = 0; k + 1 < line.size(); ++k) out.top.push_back(std::max(line[k], line[k + 1]));
        return out;
    }

  private:
    Vec2 turned(Vec2 p) const { return along_ ? Vec2{p.y, p.x} : p; }

    const MachinedSide& side_;
    bool along_;
    Ring piece_;
    std::vector<double> lane_lines_, run_lines_;
};

std::vector<Strip> strips_of(const MachinedSide& side, const Sled& sled) {
    std::vector<Strip> out;
    const Lanes lanes(side);
    const double cover = bounds(lanes.piece()).width();
    const double step = sled.cutter_mm * (1 - sled.overlap);
    const int n = lanes_for(cover, sled);
    for (int i = 0; i < n; ++i) {
        const double at = std::min(i * step, cover);
        out.push_back(lanes.strip(at, at - step / 2, at + step / 2));
    }
    return out;
}

/// A program line by line, in millimetres or inches.
class Program {
  public:
    explicit Program(bool inch) : inch_(inch) {}
    void comment(const std::string& text) {
        // Brackets end a comment, and machines read plain letters.
        std::string plain;
        for (const char c : text) plain += c == '(' || c == ')' || c == '\n' ? ' ' : static_cast<unsigned char>(c) < 128 ? c : '?';
        line("(" + plain + ")");
    }
    void line(const std::string& text) { text_ += text + "\n"; }
    std::string at(char axis, double mm) const {
        const double v = inch_ ? mm / 25.4 : mm;
        const double unit = inch_ ? 1e4 : 1e3;
        const double rounded = std::round(v * unit) / unit;
        return fmt::format(fmt::runtime(inch_ ? "{}{:.4f}" : "{}{:.3f}"), axis, rounded == 0 ? 0.0 : rounded);
    }
    std::string feed(double mm_min) const { return inch_ ? fmt::format("F{:.1f}", mm_min / 25.4) : fmt::format("F{:.0f}", mm_min); }
    const std::string& text() const { return text_; }

  private:
    bool inch_;
    std::string text_;
};

}  // namespace

Vec2 MachinedSide::to_machine(Vec2 p) const { return {p.x - rough.low.x, face == Face::a ? p.y - rough.low.y : rough.high.y - p.y}; }
Vec2 MachinedSide::to_slab(Vec2 p) const { return {p.x + rough.low.x, face == Face::a ? p.y + rough.low.y : rough.high.y - p.y}; }
double MachinedSide::after(Vec2 p) const { return levels_mm.empty() ? before(p) : std::min(before(p), 0.0); }

namespace {

/// A program of more passes than this is one of a value typed wrong.
constexpr double most_passes = 50000;

/// @throws std::invalid_argument for a sled that no shop could have, and for one that would make passes without end.
void look_at_sled(const Sled& sled, const Box& rough, double highest_mm) {
    Sled held = sled;
    for (const OutOfRange& o : hold_in_range(walk_of(held))) {
        const auto q = [&](double v) { return Quantity{v, o.kind}; };
        throw std::invalid_argument(render(say("{} is {}: from {} to {} can be cut. Type it anew on the shop's page", o.label, q(o.value),
                                               q(o.range.low), q(o.range.high)),
                                           Units::metric()));
    }
    const double lanes = std::max(rough.width(), rough.height()) / lane_mm(sled);
    if (const double passes = lanes * std::max(0.0, highest_mm) / sled.depth_mm; passes > most_passes)
        throw std::invalid_argument(
            fmt::format("the program would have {:.0f} passes: take deeper layers than {:g} mm, or a wider cutter than {:g} mm", passes,
                        sled.depth_mm, sled.cutter_mm));
}

}  // namespace

MachinedSide machined_side(const FlatPlan& plan, const LayPlan& lay, const Sled& sled, const FlatChoices& choices, bool first) {
    if (!plan.ready || lay.rough.size() < 3)
        throw std::invalid_argument("nothing is planned to be flattened: measure the slab and lay its top");
    MachinedSide side;
    side.face = plan.faces[first ? 0 : 1].face;
    side.off = side.face == Face::a ? plan.off_top : plan.off_bottom;
    side.rough = bounds(lay.rough);
    if (sled.cutter_mm >= std::min(side.rough.width(), side.rough.height()))
        throw std::invalid_argument(
            fmt::format("the cutter of {:.0f} mm is wider than the piece: set the cutter's diameter on the shop's page", sled.cutter_mm));
    look_at_sled(sled, side.rough, 0);
    for (const Vec2 p : lay.rough) side.piece.push_back(side.to_machine(p));
    if (side.face == Face::b) std::reverse(side.piece.begin(), side.piece.end());
    side.lanes = choices.lanes;
    side.below_mm = plan.faces[first ? 0 : 1].plane_mm;
    for (const Strip& s : strips_of(side, sled))
        for (const double top : s.top) side.highest_mm = std::max(side.highest_mm, top);
    look_at_sled(sled, side.rough, side.highest_mm);
    const FacePlan& face = plan.faces[first ? 0 : 1];
    if (face.levels_mm.empty()) return side;
    side.skim = face.skim;
    const Layers layers = layers_of(side.skim ? std::min(least_planed_mm, face.left_mm) : side.highest_mm, face.left_mm, sled);
    side.levels_mm = layers.levels_mm;
    side.last_layers = layers.last;
    return side;
}

std::vector<MachinePass> machine_passes(const MachinedSide& side, const Sled& sled) {
    std::vector<MachinePass> out;
    const std::vector<Strip> strips = strips_of(side, sled);
    const double beyond = sled.cutter_mm / 2 + run_out_mm;
    bool up = true;
    for (std::size_t layer = 0; layer < side.levels_mm.size(); ++layer)
        for (const Strip& s : strips) {
            std::vector<MachinePass> lane;
            for (std::size_t k = 0; k < s.top.size(); ++k) {
                if (!side.skim && s.top[k] <= side.levels_mm[layer] + 1e-9) continue;
                // Off the edge of the piece it comes in from beside.
                const double from = k == 0 ? s.run[k] - beyond : s.run[k];
                const double to = k + 1 == s.top.size() ? s.run[k + 1] + beyond : s.run[k + 1];
                if (!lane.empty() && from <= lane.back().to_mm + 1e-9) lane.back().to_mm = to;
                else lane.push_back({static_cast<int>(layer), s.lane, from, to});
            }
            if (!up) {
                std::reverse(lane.begin(), lane.end());
                for (MachinePass& p : lane) std::swap(p.from_mm, p.to_mm);
            }
            if (!lane.empty()) up = !up;
            out.insert(out.end(), lane.begin(), lane.end());
        }
    return out;
}

double most_rpm(double cutter_mm) {
    constexpr double rim_m_s = 35;
    const double rpm = 60 * rim_m_s * 1000 / (std::numbers::pi * std::max(1.0, cutter_mm));
    return std::min(18000.0, std::floor(rpm / 100) * 100);
}

std::string to_gcode(const MachinedSide& side, const Sled& sled, const GcodeWords& words) {
    Program p(words.inch);
    const double safe = std::max(0.0, side.highest_mm) + clear_mm;
    const double feed = sled.feed_mm_s * 60;
    const double plunge = feed / 3;
    const Box box = bounds(side.piece);
    p.comment(words.job + ", " + words.piece + ": " + (words.first ? "first side, " : "second side, ") +
              (side.face == Face::a ? "show face up" : "underside up, turned over about its length"));
    p.comment(fmt::format("cutter diameter {:g} mm", sled.cutter_mm));
    p.comment(fmt::format("layer depth {:g} mm", sled.depth_mm));
    p.comment("zero: X0 Y0 the left near corner of the box around the rough piece, Z0 the finished face");
    p.comment("X runs along the slab to the right, Y across it away from you, Z up");
    p.comment(fmt::format("box {:.1f} by {:.1f} mm; highest wood {:.2f} mm above zero; the bed lies {:.1f} mm below it", box.width(),
                          box.height(), side.highest_mm, side.below_mm));
    const double middle = box.height() / 2;
    p.comment(fmt::format("pins for turning over, on the middle line: X {:.1f} and X {:.1f}, Y {:.1f}; they stay where they are", 15.0,
                          box.width() - 15, middle));
    p.comment(words.first ? "the piece lies on its shims as planned, held down clear of the box" : "the flat face lies down on the bed");
    if (side.last_layers > 0)
        p.comment(fmt::format("the last {} of {} layers are for after the rest: stop before the line that says so", side.last_layers,
                              side.levels_mm.size()));
    p.comment("what is stamped on the cutter stands above these speeds; guards, dust and your local rules above all of it");
    for (const char* mode : {"G21", "G90", "G17", "G94", "G54"}) p.line(words.inch && mode == std::string("G21") ? "G20" : mode);
    p.line("G0 " + p.at('Z', safe));
    p.line(fmt::format("M3 S{:.0f}", most_rpm(sled.cutter_mm)));
    p.line(p.feed(feed));
    int layer = -1;
    const int rough = static_cast<int>(side.levels_mm.size()) - side.last_layers;
    for (const MachinePass& pass : machine_passes(side, sled)) {
        if (pass.layer != layer) {
            layer = pass.layer;
            p.comment(fmt::format("layer {} of {}, down to {:.2f} mm above zero{}", layer + 1, side.levels_mm.size(),
                                  side.levels_mm[static_cast<std::size_t>(layer)], layer == rough ? ": after the rest" : ""));
        }
        const auto i = static_cast<std::size_t>(layer);
        const double before = i == 0 ? side.highest_mm : side.levels_mm[i - 1];
        const bool along = side.lanes == LaneWay::along;
        p.line("G0 " + p.at('X', along ? pass.from_mm : pass.lane_mm) + " " + p.at('Y', along ? pass.lane_mm : pass.from_mm));
        if (before + near_mm < safe) p.line("G0 " + p.at('Z', before + near_mm));
        p.line("G1 " + p.at('Z', side.levels_mm[i]) + " " + p.feed(plunge));
        p.line("G1 " + p.at(along ? 'X' : 'Y', pass.to_mm) + " " + p.feed(feed));
        p.line("G0 " + p.at('Z', safe));
    }
    p.line("M5");
    p.line("M2");
    return p.text();
}

std::vector<Vec3> surface_points(const MachinedSide& side, bool after, double step) {
    if (!(step > 0)) throw std::invalid_argument("the step between points has to be above 0 mm");
    const Box box = bounds(side.piece);
    if (box.width() / step * (box.height() / step) > 2e7)
        throw std::invalid_argument(fmt::format("a step of {:g} mm makes more than 20 million points: take a larger one", step));
    std::vector<Vec3> out;
    for (int i = 0; i * step <= box.width() + 1e-9; ++i) {
        const double x = i * step;
        const auto spans = cut_at_x(side.piece, std::clamp(x, 1e-6, box.width() - 1e-6));
        for (const Span1 s : spans)
            for (auto j = static_cast<int>(std::ceil(s.from / step - 1e-9)); j * step <= s.to + 1e-9; ++j) {
                const Vec2 q{x, j * step};
                out.push_back({q.x, q.y, after ? side.after(q) : side.before(q)});
            }
    }
    return out;
}

}  // namespace yb
