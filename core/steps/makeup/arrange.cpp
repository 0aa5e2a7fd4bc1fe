#include "core/steps/makeup/arrange.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <numeric>

#include "core/steps/lay/place.h"

namespace yb {

std::shared_ptr<const BothWays> both_ways(const Slab& slab) {
    auto b = std::make_shared<BothWays>();
    b->up = slab;
    b->over = turned_over(slab);
    b->shape_up = shape_of(b->up);
    b->shape_over = shape_of(b->over);
    return b;
}

void move_by(Placement& p, Vec2 uv) {
    const Vec2 d = Frame{{0, 0}, p.angle_deg}.to_slab(uv);
    p.x_mm -= d.x;
    p.y_mm -= d.y;
}

void turn_about(Placement& p, Vec2 uv, double degrees) {
    const Vec2 on_slab = p.frame().to_slab(uv);
    p.angle_deg -= degrees;
    const Vec2 back = Frame{{0, 0}, p.angle_deg}.to_slab(uv);
    p.x_mm = on_slab.x - back.x;
    p.y_mm = on_slab.y - back.y;
}

namespace {

double degrees_of(double slope) { return std::atan(slope) * 180 / std::numbers::pi; }

/// One leaf while it is being laid: which board, which way up, whether turned end for end, its rips.
struct Laid {
    std::size_t board = 0;
    bool over = false, ended = false;
    Placement placement;
};

/// A leaf whose rip line becomes the joint at v; `high`: the joint is at the leaf's high side in the top.
/// @param x where the top's middle lies along the slab. @param joint_deg how the joint runs against the top's length.
Placement at_joint(const RipLine& rip, bool over, bool ended, double x, double joint_v, double oversize, double joint_deg = 0) {
    Placement p;
    p.turned_over = over;
    p.oversize_mm = oversize;
    p.angle_deg = degrees_of(rip.slope) - joint_deg + (ended ? 180 : 0);
    // The point of the rip line at x comes to lie at (0, joint_v).
    const Vec2 on_slab{x, rip.at(x)};
    const Vec2 back = Frame{{0, 0}, p.angle_deg}.to_slab({0, joint_v});
    p.x_mm = on_slab.x - back.x;
    p.y_mm = on_slab.y - back.y;
    return p;
}

/// Outer edge of a leaf at a station of the top.
double outer_at(const SlabShape& shape, const Placement& p, double u, bool high) {
    const Frame f = p.frame();
    const Ring uv = f.from_slab(shape.ring_a);
    const auto cut = cut_at_x(uv, u);
    if (cut.empty()) return 0;
    return high ? cut.back().to : cut.front().from;
}

/// A slab as it lay in the log: its upper face up, its left end at the log's. Only what is needed to lay it.
std::shared_ptr<const BothWays> as_in_log(const std::shared_ptr<const BothWays>& board) {
    const Slab& s = board->up;
    if (!s.face_b_up && !s.ends_swapped) return board;
    auto b = std::make_shared<BothWays>(*board);
    if (s.face_b_up) std::swap(b->up, b->over), std::swap(b->shape_up, b->shape_over);
    if (s.ends_swapped)
        for (const bool over : {false, true}) {
            SlabShape& shape = over ? b->shape_over : b->shape_up;
            const Vec2 c{shape.x0 + shape.x1, 0};
            for (Ring* r : {&shape.ring_a, &shape.ring_b})
                for (Vec2& p : *r) p = c - p;
            for (Flaw& f : (over ? b->over : b->up).flaws)
                for (Vec2& p : f.outline) p = c - p;
        }
    return b;
}

/// The placement on the slab as it is measured, for one on the slab as it lay in the log.
Placement as_measured(Placement p, const BothWays& board) {
    const Slab& s = board.up;
    if (s.ends_swapped) {
        p.x_mm = board.shape_up.x0 + board.shape_up.x1 - p.x_mm;
        p.y_mm = -p.y_mm;
        p.angle_deg = std::remainder(p.angle_deg + 180, 360);
    }
    if (s.face_b_up) p.turned_over = !p.turned_over;
    return p;
}

class Arranger {
  public:
    Arranger(MakeUp kind, const std::vector<std::shared_ptr<const BothWays>>& boards, const WantedTop& top, const MakeUpChoices& choices)
        : kind_(kind), given_(boards), top_(top), choices_(choices), n_(boards.size()) {
        for (const auto& b : boards) boards_.push_back(as_in_log(b));
    }

    Arrangement run() {
        if (!right_number()) return no(say("{} wants {}", name_of(kind_), wanted_number()));
        for (const auto& b : boards_)
            if (!b->shape_up.usable || !b->shape_over.usable) return no(say("{} is not measured well enough to be laid", b->up.name));
        order();
        if (kind_ == MakeUp::single) return single();
        if (is_river(kind_)) return river();
        if (kind_ == MakeUp::slip) return best_of({slip(false), slip(true)});
        if (kind_ == MakeUp::book) return best_of({opened(0, false), opened(0, true)});
        return best_of({opened(1, false), opened(1, true)});
    }

  private:
    static Arrangement no(Phrase why) {
        Arrangement a;
        a.why_not = std::move(why);
        return a;
    }

    bool right_number() const {
        if (kind_ == MakeUp::single) return n_ == 1;
        if (kind_ == MakeUp::book || kind_ == MakeUp::slip) return n_ == 2;
        return kind_ == MakeUp::boards ? n_ == 3 || n_ == 4 : n_ >= 2 && n_ <= 4;
    }
    const char* wanted_number() const {
        if (kind_ == MakeUp::single) return "one";
        if (kind_ == MakeUp::book || kind_ == MakeUp::slip) return "two leaves";
        return kind_ == MakeUp::boards ? "three or four leaves" : "two to four leaves";
    }

    void order() {
        order_.resize(n_);
        std::iota(order_.begin(), order_.end(), std::size_t{0});
        std::stable_sort(order_.begin(), order_.end(), [&](std::size_t a, std::size_t b) {
            return boards_[a]->up.sequence.value_or(1000) < boards_[b]->up.sequence.value_or(1000);
        });
    }

    const BothWays& board(std::size_t k) const { return *boards_[order_[k]]; }

    /// The stretch of a slab that lies in the top when its middle is the slab's.
    Span1 stretch(const SlabShape& s) const {
        const double mid = (s.x0 + s.x1) / 2;
        return {std::max(s.x0, mid - top_.length_mm / 2), std::min(s.x1, mid + top_.length_mm / 2)};
    }

    std::vector<EdgeLimit> limits(std::size_t k, bool over, bool high) const {
        const SlabShape& s = board(k).shape(over);
        const Span1 x = stretch(s);
        return edge_limits(board(k).slab(over), s, high, x.from, x.to);
    }

    double middle(std::size_t k) const {
        const SlabShape& s = board(k).shape_up;
        return (s.x0 + s.x1) / 2;
    }

    Arrangement single() {
        Arrangement a;
        a.possible = true;
        a.order = order_;
        a.placements.push_back(middle_of(given_[0]->shape_up));
        return a;
    }

    /// Mean width and taper of what lies there, and the outline's middle brought to v = 0.
    Arrangement finish(const std::vector<Laid>& leaves, std::vector<Joint> joints, double given_up) {
        Arrangement a;
        a.possible = true;
        a.given_up_mm = given_up;
        a.joints = std::move(joints);
        constexpr int n = 24;
        double low = 0;
        double high = 0;
        double first = 0;
        double last = 0;
        for (int i = 0; i <= n; ++i) {
            const double u = (-0.5 + static_cast<double>(i) / n) * top_.length_mm * 0.999;
            const double r = outer_at(board(leaves.front().board).shape(leaves.front().over), leaves.front().placement, u, false);
            const double l = outer_at(board(leaves.back().board).shape(leaves.back().over), leaves.back().placement, u, true);
            low += r / (n + 1), high += l / (n + 1);
            if (i == 0) first = l - r;
            if (i == n) last = l - r;
        }
        a.width_mm = high - low;
        a.taper_mm = std::abs(first - last);
        const double by = (low + high) / 2;
        for (const Laid& l : leaves) {
            a.order.push_back(order_[l.board]);
            Placement p = l.placement;
            move_by(p, {0, -by});
            a.placements.push_back(as_measured(p, *given_[order_[l.board]]));
        }
        for (Joint& j : a.joints) j.v_mm -= by;
        return a;
    }

    /// Boards drawn out side by side, all showing the same face. `low_seam`: in the other order.
    Arrangement slip(bool swapped) {
        const bool over = choices_.outer_faces;
        std::vector<Laid> leaves{{swapped ? 1U : 0U, over, false, {}}, {swapped ? 0U : 1U, over, false, {}}};
        const auto r = best_rip(limits(leaves[0].board, over, true), true);
        const auto l = best_rip(limits(leaves[1].board, over, false), false);
        if (!r || !l) return no(say("no straight line lies in one of them"));
        leaves[0].placement = at_joint(*r, over, false, middle(leaves[0].board), 0, oversize);
        leaves[1].placement = at_joint(*l, over, false, middle(leaves[1].board), 0, oversize);
        return finish(leaves, {Joint{}}, r->given_up_mm + l->given_up_mm);
    }

    /// A pair opened like a book, boards `at` and `at + 1` of the order; with three or four the rest drawn out beside
    /// them. `low_seam`: along the low side of the log.
    Arrangement opened(std::size_t at, bool low_seam) {
        if (kind_ == MakeUp::boards && n_ == 3) at = low_seam ? 1 : 0;
        // The lower slab shows its upper face; its seam edge has to face left for it to be the right leaf.
        const std::size_t lower = at;
        const std::size_t upper = at + 1;
        // Seam at the log's high side: lower slab right. At the low side: upper slab, turned over, right.
        // Turned over as one, what was left lies right, each the other way up.
        const std::size_t right = low_seam != choices_.outer_faces ? upper : lower;
        const std::size_t left = right == upper ? lower : upper;
        const bool right_over = low_seam;
        const bool left_over = !low_seam;
        auto lr = limits(right, right_over, true);
        auto ll = limits(left, left_over, false);
        Laid a{right, right_over, false, {}};
        Laid b{left, left_over, false, {}};
        double given = 0;
        if (choices_.same_line) {
            // The mate's limits told in the right leaf's frame: mirrored, and slid as the log lay.
            const LogShift s = shift(right, right_over, left, left_over);
            std::vector<EdgeLimit> mate;
            for (const EdgeLimit& e : ll) {
                const Vec2 p = s.apply({e.x, -e.y});
                const Vec2 q = s.apply({e.x, -e.show});
                mate.push_back({p.x, p.y, q.y});
            }
            std::sort(mate.begin(), mate.end(), [](const EdgeLimit& x, const EdgeLimit& y) { return x.x < y.x; });
            const auto rip = best_rip(narrower(lr, mate, true), true);
            if (!rip) return no(say("no straight line lies in both of them"));
            a.placement = at_joint(*rip, right_over, false, middle(right), 0, oversize);
            b.placement = mirrored(a.placement, s, left_over);
            given = rip->given_up_mm;
            for (const EdgeLimit& e : mate) given += (e.show - rip->at(e.x)) / static_cast<double>(mate.size());
        } else {
            const auto r = best_rip(lr, true);
            const auto l = best_rip(ll, false);
            if (!r || !l) return no(say("no straight line lies in one of them"));
            a.placement = at_joint(*r, right_over, false, middle(right), 0, oversize);
            b.placement = at_joint(*l, left_over, false, middle(left), 0, oversize);
            given = r->given_up_mm + l->given_up_mm;
        }
        std::vector<Laid> leaves{a, b};
        std::vector<Joint> joints{Joint{}};
        if (kind_ == MakeUp::boards) {
            // The next board below goes beside the lower slab, the next above beside the upper one.
            for (std::size_t k = 0; k < n_; ++k) {
                if (k == lower || k == upper) continue;
                const bool beside_lower = k < lower;
                const bool to_right = beside_lower == (right == lower);
                const bool over = beside_lower ? (right == lower ? right_over : left_over) : (right == upper ? right_over : left_over);
                if (!draw_out(leaves, joints, k, over, to_right, given)) return no(say("no straight line lies in one of the outer boards"));
            }
        }
        return finish(leaves, joints, given);
    }

    /// An outer board beside what lies there: both it and its neighbour are ripped.
    bool draw_out(std::vector<Laid>& leaves, std::vector<Joint>& joints, std::size_t k, bool over, bool to_right, double& given) {
        const bool ended = choices_.ends_swapped;
        const Laid& next = to_right ? leaves.front() : leaves.back();
        if (ended) return turned_beside(leaves, joints, k, over, to_right, next, given);
        // The neighbour's outer edge, seen in the top: a straight line that stays in its wood, parallel to the seam.
        const SlabShape& s = board(next.board).shape(next.over);
        double v = to_right ? -1e300 : 1e300;
        double mean = 0;
        const Frame f = next.placement.frame();
        const Ring a = f.from_slab(s.ring_a);
        const Ring b = f.from_slab(s.ring_b);
        constexpr int n = 100;
        int counted = 0;
        for (int i = 0; i <= n; ++i) {
            const double u = (-0.5 + static_cast<double>(i) / n) * top_.length_mm * 0.999;
            const auto ca = cut_at_x(a, u);
            const auto cb = cut_at_x(b, u);
            if (ca.empty() || cb.empty()) continue;
            const double edge = to_right ? std::max(ca.front().from, cb.front().from) : std::min(ca.back().to, cb.back().to);
            v = to_right ? std::max(v, edge) : std::min(v, edge);
            mean += to_right ? ca.front().from : ca.back().to;
            ++counted;
        }
        if (counted == 0) return false;
        given += std::abs(v - mean / counted);
        // Drawn straight out it is met by the side towards its neighbour in the log.
        const auto rip = best_rip(limits(k, over, to_right), to_right);
        if (!rip) return false;
        given += rip->given_up_mm;
        put_beside(leaves, joints, {k, over, false, at_joint(*rip, over, false, middle(k), v, oversize)}, Joint{v, 0, false}, to_right);
        return true;
    }

    static void put_beside(std::vector<Laid>& leaves, std::vector<Joint>& joints, const Laid& leaf, const Joint& joint, bool to_right) {
        leaves.insert(to_right ? leaves.begin() : leaves.end(), leaf);
        joints.insert(to_right ? joints.begin() : joints.end(), joint);
    }

    /// An outer board turned end for end: the joint follows its neighbour's edge, so that what the one loses towards the
    /// top of the log the other gains.
    bool turned_beside(std::vector<Laid>& leaves, std::vector<Joint>& joints, std::size_t k, bool over, bool to_right, const Laid& next,
                       double& given) {
        const auto edge = best_rip(limits(next.board, next.over, !to_right), !to_right);
        const auto rip = best_rip(limits(k, over, !to_right), !to_right);
        if (!edge || !rip) return false;
        const Frame f = next.placement.frame();
        const double x = edge->middle_x_mm;
        const Vec2 a = f.from_slab(Vec2{x - 500, edge->at(x - 500)});
        const Vec2 b = f.from_slab(Vec2{x + 500, edge->at(x + 500)});
        const double slope = (b.y - a.y) / (b.x - a.x);
        const Joint joint{a.y - slope * a.x, degrees_of(slope), false};
        given += edge->given_up_mm + rip->given_up_mm;
        put_beside(leaves, joints, {k, over, true, at_joint(*rip, over, true, middle(k), joint.v_mm, oversize, joint.angle_deg)}, joint,
                   to_right);
        return true;
    }

    /// How the left leaf's slab lay in the log against the right one's, both seen as the right leaf lies.
    LogShift shift(std::size_t right, bool right_over, std::size_t left, bool left_over) const {
        Ring mate = board(left).shape(left_over).ring_a;
        for (Vec2& p : mate) p.y = -p.y;
        const auto grown = [&](std::size_t k) {
            return board(k).up.outline && board(k).up.outline->from == "grown" && !board(k).up.ends_swapped && !board(k).up.face_b_up;
        };
        if (grown(left) && grown(right)) return {};  // their frames are the log's own
        LogShift s = log_shift(board(right).shape(right_over).ring_a, mate);
        if (s.misfit_mm > 80) return {};
        return s;
    }

    /// The left leaf as the mirror of the right one at v = 0 of the top.
    static Placement mirrored(const Placement& a, const LogShift& s, bool over) {
        Placement b = a;
        b.turned_over = over;
        // A point q of the left slab as laid lies in the right leaf's frame at s.apply({q.x, −q.y}); mirrored there.
        // The frame of the top on the left slab is found from where its origin and its u axis come from.
        const Frame f = a.frame();
        const auto back = [&](Vec2 uv) {
            const Vec2 p = f.to_slab({uv.x, -uv.y});
            const Vec2 q = Frame{{s.dx, s.dy}, s.angle_deg}.from_slab(p);
            return Vec2{q.x, -q.y};
        };
        const Vec2 o = back({0, 0});
        const Vec2 e = back({1000, 0}) - o;
        b.x_mm = o.x;
        b.y_mm = o.y;
        b.angle_deg = std::atan2(e.y, e.x) * 180 / std::numbers::pi;
        return b;
    }

    Arrangement river() {
        std::vector<Laid> leaves;
        for (std::size_t k = 0; k < n_; ++k) {
            // The wavier side is the better bank for a river, the straighter one the easier outer edge: the
            // outer leaves turn their straighter edge outwards.
            const bool outer_right = k == 0;
            const bool over = choices_.outer_faces;
            const SlabShape& s = board(k).shape(over);
            const auto rough = [&](bool high) {
                const auto all = limits(k, over, high);
                const auto line = best_rip(all, high);
                return line ? line->given_up_mm : 0.0;
            };
            const bool turn = outer_right ? rough(false) > rough(true) : rough(true) > rough(false);
            Placement p = middle_of(s);
            p.x_mm = (s.x0 + s.x1) / 2;
            p.oversize_mm = oversize;
            if (turn) p.angle_deg = 180;
            p.turned_over = over;
            leaves.push_back({k, over, turn, p});
        }
        // Each against the one to its right, a river's mean width away.
        double v = 0;
        for (std::size_t k = 0; k < n_; ++k) {
            Laid& l = leaves[k];
            const SlabShape& s = board(l.board).shape(l.over);
            const auto mean = [&](bool high) {
                double sum = 0;
                for (int i = 0; i <= 24; ++i) sum += outer_at(s, l.placement, (-0.49 + 0.98 * i / 24) * top_.length_mm, high) / 25;
                return sum;
            };
            const double to = v + (k > 0 ? choices_.river_mm : 0) - mean(false);
            move_by(l.placement, {0, to});
            v = mean(true);
        }
        std::vector<Joint> joints(n_ - 1);
        return finish(leaves, joints, 0);
    }

    Arrangement best_of(std::vector<Arrangement> all) const {
        Arrangement best = all.front();
        for (const Arrangement& a : all)
            if (a.possible && (!best.possible || a.given_up_mm < best.given_up_mm)) best = a;
        return best;
    }

    static constexpr double oversize = 30;
    MakeUp kind_;
    const std::vector<std::shared_ptr<const BothWays>>& given_;
    std::vector<std::shared_ptr<const BothWays>> boards_;  ///< as they lay in the log
    const WantedTop& top_;
    const MakeUpChoices& choices_;
    std::size_t n_;
    std::vector<std::size_t> order_;
};

}  // namespace

Arrangement arrange(MakeUp kind, const std::vector<std::shared_ptr<const BothWays>>& boards, const WantedTop& top,
                    const MakeUpChoices& choices) {
    return Arranger(kind, boards, top, choices).run();
}

std::vector<Placement> best_rips(const MakeUpInputs& in, const MakeUpPlan& plan) {
    std::vector<Placement> out;
    for (const LeafIn& l : in.leaves) out.push_back(l.placement);
    if (is_river(in.choices.kind)) return out;
    const auto joints = joints_of(in.choices, in.leaves.size(), in.top.width_mm);
    const double half = in.top.length_mm / 2;
    /// Limits of a leaf at a joint, in the top's frame.
    const auto limits = [&](std::size_t i, bool high) {
        std::vector<EdgeLimit> all;
        const LeafIn& leaf = in.leaves[i];
        Slab turned = leaf.slab;
        const Frame f = leaf.placement.frame();
        for (Flaw& flaw : turned.flaws)
            for (Vec2& p : flaw.outline) p = f.from_slab(p);
        SlabShape shape;
        shape.ring_a = plan.leaves[i].show;
        shape.ring_b = plan.leaves[i].under;
        const Box b = bounds(shape.ring_a);
        shape.x0 = b.low.x;
        shape.x1 = b.high.x;
        return edge_limits(turned, shape, high, std::max(-half, b.low.x), std::min(half, b.high.x));
    };
    /// Turns and slides a leaf so that this line of the top comes to lie on the joint.
    const auto lay_on = [&](std::size_t i, const RipLine& line, const Joint& j) {
        Placement& p = out[i];
        const Vec2 from{0, line.at(0)};
        const double turn = degrees_of(line.slope) - j.angle_deg;
        const Vec2 on_slab = p.frame().to_slab(from);
        p.angle_deg += turn;
        const Vec2 back = Frame{{0, 0}, p.angle_deg}.to_slab({0, j.v_mm});
        p.x_mm = on_slab.x - back.x;
        p.y_mm = on_slab.y - back.y;
    };
    // From the seam outwards: a leaf is turned for the joint nearest to the middle, others follow from their own.
    std::vector<std::size_t> order(joints.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::sort(order.begin(), order.end(),
              [&](std::size_t a, std::size_t b) { return std::abs(joints[a].v_mm) < std::abs(joints[b].v_mm); });
    std::vector<bool> placed(in.leaves.size(), false);
    for (const std::size_t k : order) {
        auto right = limits(k, true);
        auto left = limits(k + 1, false);
        const auto upper = [&](std::size_t i) { return shows_upper(in.leaves[i].slab, in.leaves[i].placement); };
        const bool book = upper(k) != upper(k + 1);
        if (book && in.choices.same_line && !placed[k] && !placed[k + 1]) {
            std::vector<EdgeLimit> mate;
            for (const EdgeLimit& e : left) mate.push_back({e.x, 2 * joints[k].v_mm - e.y, 2 * joints[k].v_mm - e.show});
            const auto both = best_rip(narrower(right, mate, true), true);
            if (!both) continue;
            RipLine mirror = *both;
            mirror.y_mm = 2 * joints[k].v_mm - both->y_mm;
            mirror.slope = -both->slope;
            lay_on(k, *both, joints[k]);
            lay_on(k + 1, mirror, joints[k]);
        } else {
            const auto r = best_rip(right, true);
            const auto l = best_rip(left, false);
            if (r && !placed[k]) lay_on(k, *r, joints[k]);
            if (l && !placed[k + 1]) lay_on(k + 1, *l, joints[k]);
        }
        placed[k] = placed[k + 1] = true;
    }
    return out;
}

}  // namespace yb
