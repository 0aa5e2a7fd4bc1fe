#include "core/steps/skin/faces.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace yb {

namespace {

double triangle(Vec3 a, Vec3 b, Vec3 c) {
    const Vec3 u{b.x - a.x, b.y - a.y, b.z - a.z};
    const Vec3 v{c.x - a.x, c.y - a.y, c.z - a.z};
    const Vec3 n{u.y * v.z - u.z * v.y, u.z * v.x - u.x * v.z, u.x * v.y - u.y * v.x};
    return std::sqrt(n.x * n.x + n.y * n.y + n.z * n.z) / 2;
}

double m2_of(const std::vector<Ring>& rings) {
    double sum = 0;
    for (const Ring& r : rings) sum += area(r);
    return sum * 1e-6;
}

double chain_mm(const std::vector<Vec2>& chain) {
    double sum = 0;
    for (std::size_t i = 1; i < chain.size(); ++i) sum += length(chain[i] - chain[i - 1]);
    return sum;
}

class Faces {
  public:
    Faces(const Top& top, const std::vector<std::pair<Ring, double>>& pockets, const BasePlan& base, const std::vector<LetInTie>& ties)
        : top_(top), pockets_(pockets), base_(base), ties_(ties) {}

    std::vector<SkinFace> run() {
        face(true);
        face(false);
        if (top_.wanted.shape == TopShape::rectangle) sides();
        else rim();
        pockets();
        let_in();
        base();
        return std::move(out_);
    }

  private:
    /// Upper face or underside: wood, and resin apart from it.
    void face(bool above) {
        const Ring& all = above || top_.below.size() < 3 ? top_.above : top_.below;
        std::vector<Ring> resin, open;
        double air = 0;
        double pieces = 0;
        for (const LetInTie& t : ties_)
            if (t.from_above == above) pieces += intersection_area(t.outline, all) * 1e-6;
        for (const Region& r : top_.regions) {
            const Ring& ring = above ? r.above : r.below;
            if (ring.size() < 3) continue;
            for (const Ring& part : intersection(ring, all)) {
                if (r.kind == RegionKind::resin) resin.push_back(part);
                if (r.kind == RegionKind::air) air += area(part) * 1e-6, open.push_back(part);
                if (r.kind == RegionKind::patch) pieces += area(part) * 1e-6;
            }
        }
        // A channel may run through a river: what of it is cut into resin is no wood less.
        double let_in = 0;
        double in_resin = 0;
        if (!above)
            for (const auto& [ring, deep] : pockets_) {
                let_in += intersection_area(ring, all) * 1e-6;
                for (const Ring& r : resin) in_resin += intersection_area(ring, r) * 1e-6;
                for (const Ring& r : open) let_in -= intersection_area(ring, r) * 1e-6;
            }
        let_in -= in_resin;
        const double whole = area(all) * 1e-6;
        const double glass = m2_of(resin);
        SkinFace f;
        f.key = above ? "upper" : "under";
        f.kind = above ? SkinFace::Kind::upper : SkinFace::Kind::under;
        f.name = above ? say("Upper face") : say("Underside");
        f.m2 = std::max(0.0, whole - glass - air - let_in - pieces);
        f.at = {all};
        f.working = {"outline − resin − air − pockets − ties and patches",
                     {{"outline", square_metres(whole), "at the finished plane"},
                      {"resin", square_metres(glass), "a face of its own"},
                      {"air", square_metres(air), "open rivers and voids"},
                      {"pockets", square_metres(let_in), "faces of their own"},
                      {"ties and patches", square_metres(pieces), "faces of their own"}},
                     ""};
        if (f.m2 > 1e-6) out_.push_back(f);
        if (glass < 1e-6) return;
        SkinFace r;
        r.key = above ? "resin above" : "resin below";
        r.kind = above ? SkinFace::Kind::resin_above : SkinFace::Kind::resin_below;
        r.name = above ? say("Resin, above") : say("Resin, below");
        r.m2 = std::max(0.0, glass - in_resin);
        r.at = std::move(resin);
        r.working = {
            "Σ of rivers and fillings that reach the face − pockets",
            {{"resin", square_metres(glass), "at the finished plane"}, {"pockets in it", square_metres(in_resin), "faces of their own"}},
            ""};
        out_.push_back(std::move(r));
    }

    SkinFace& edge(std::string key, SkinFace::Kind kind, Phrase name, const std::vector<Vec2>& above, const std::vector<Vec2>& below) {
        SkinFace f;
        f.key = std::move(key), f.kind = kind, f.name = std::move(name);
        f.m2 = ruled_m2(above, below, top_.thickness_mm);
        f.long_mm = chain_mm(above);
        f.at = {Ring(above.begin(), above.end())};
        f.at.front().insert(f.at.front().end(), below.rbegin(), below.rend());
        f.working = {"the ruled surface between both faces' outlines, in triangles",
                     {{"along it", mm(f.long_mm), "upper outline"},
                      {"thickness", fine(top_.thickness_mm), "Flat"},
                      {"area", square_metres(f.m2), "240 stretches"}},
                     ""};
        out_.push_back(std::move(f));
        return out_.back();
    }

    void sides() {
        const Ring& below_ring = top_.below.size() < 3 ? top_.above : top_.below;
        const Box box = bounds(top_.above);
        constexpr int n = 240;
        const double inset = 1e-6 * box.width();
        for (const bool left : {false, true}) {
            std::vector<Vec2> above, below;
            double lean = 0;
            for (int i = 0; i <= n; ++i) {
                const double u = box.low.x + inset + (box.width() - 2 * inset) * i / n;
                const auto a = cut_at_x(top_.above, u);
                const auto b = cut_at_x(below_ring, u);
                if (a.empty() || b.empty()) continue;
                above.push_back({u, left ? a.back().to : a.front().from});
                below.push_back({u, left ? b.back().to : b.front().from});
                lean += (left ? 1 : -1) * (below.back().y - above.back().y);
            }
            if (above.size() < 2) continue;
            const bool live = left ? left_live(top_.wanted.live) : right_live(top_.wanted.live);
            SkinFace& f =
                edge(left ? "edge left" : "edge right", live ? SkinFace::Kind::live_edge : SkinFace::Kind::edge,
                     live ? (left ? say("Live edge, left") : say("Live edge, right")) : (left ? say("Edge, left") : say("Edge, right")),
                     above, below);
            f.lean_deg = std::atan2(lean / static_cast<double>(above.size()), std::max(0.1, top_.thickness_mm)) * 180 / std::numbers::pi;
        }
        for (const bool right : {false, true}) {
            const double u = right ? box.high.x - inset : box.low.x + inset;
            const auto a = cut_at_x(top_.above, u);
            const auto b = cut_at_x(below_ring, u);
            if (a.empty() || b.empty()) continue;
            // An open river parts an end in two: air is no end grain.
            std::vector<Vec2> above{{u, a.front().from}, {u, a.back().to}};
            std::vector<Vec2> below{{u, b.front().from}, {u, b.back().to}};
            edge(right ? "end right" : "end left", SkinFace::Kind::end, right ? say("End, right") : say("End, left"), above, below);
        }
    }

    /// Round, oval and free tops: one edge all the way round, both outlines met by the rays from the middle.
    void rim() {
        const Ring& below_ring = top_.below.size() < 3 ? top_.above : top_.below;
        const Vec2 mid = centroid(top_.above);
        const auto met = [&](const Ring& ring, double angle) {
            const Vec2 way{std::cos(angle), std::sin(angle)};
            double best = 0;
            for (std::size_t i = 0; i < ring.size(); ++i) {
                const Vec2 a = ring[i] - mid;
                const Vec2 d = ring[(i + 1) % ring.size()] - ring[i];
                const double det = way.x * -d.y + way.y * d.x;
                if (std::abs(det) < 1e-12) continue;
                const double t = (a.x * -d.y + a.y * d.x) / det;
                const double s = (way.x * a.y - way.y * a.x) / det;
                if (s >= 0 && s <= 1) best = std::max(best, t);
            }
            return mid + way * best;
        };
        constexpr int n = 240;
        std::vector<Vec2> above, below;
        for (int i = 0; i <= n; ++i) {
            const double a = 2 * std::numbers::pi * i / n;
            above.push_back(met(top_.above, a)), below.push_back(met(below_ring, a));
        }
        edge("rim", left_live(top_.wanted.live) || right_live(top_.wanted.live) ? SkinFace::Kind::live_edge : SkinFace::Kind::rim,
             say("Rim"), above, below);
    }

    /// What is cut from below: floors and walls.
    void pockets() {
        for (std::size_t i = 0; i < pockets_.size(); ++i) {
            const auto& [ring, deep] = pockets_[i];
            double round = 0;
            for (std::size_t k = 0; k < ring.size(); ++k) round += length(ring[(k + 1) % ring.size()] - ring[k]);
            SkinFace f;
            f.key = "pocket " + std::to_string(i + 1);
            f.kind = SkinFace::Kind::pocket;
            f.name = say("Pocket {}", count(static_cast<double>(i) + 1));
            f.m2 = (area(ring) + round * deep) * 1e-6;
            f.at = {ring};
            f.working = {
                "floor + round it × deep", {{"floor", square_metres(area(ring) * 1e-6), "Under"}, {"deep", fine(deep), "Under"}}, ""};
            out_.push_back(std::move(f));
        }
    }

    void piece(std::string key, SkinFace::Kind kind, Phrase name, const Ring& ring, const Ring& face) {
        SkinFace f;
        f.key = std::move(key), f.kind = kind, f.name = std::move(name);
        f.at = intersection(ring, face);
        f.m2 = m2_of(f.at);
        f.working = {"its outline, as far as the face goes", {{"area", square_metres(f.m2), "at the finished plane"}}, ""};
        if (f.m2 > 0) out_.push_back(std::move(f));
    }

    /// Bow ties and patches, each on the face where it is seen.
    void let_in() {
        const Ring& underside = top_.below.size() < 3 ? top_.above : top_.below;
        for (std::size_t i = 0; i < ties_.size(); ++i)
            piece("tie " + std::to_string(i + 1), SkinFace::Kind::tie, say("Bow tie {}", count(static_cast<double>(i) + 1)),
                  ties_[i].outline, ties_[i].from_above ? top_.above : underside);
        for (const Region& r : top_.regions) {
            if (r.kind != RegionKind::patch) continue;
            const std::string key = "patch " + std::to_string(r.index + 1);
            const double n = static_cast<double>(r.index) + 1;
            if (r.above.size() > 2) piece(key + " above", SkinFace::Kind::patch, say("Patch {}, above", count(n)), r.above, top_.above);
            if (r.below.size() > 2) piece(key + " below", SkinFace::Kind::patch, say("Patch {}, below", count(n)), r.below, underside);
        }
    }

    /// A face for each row of the cut list: its pieces as boxes, all their sides.
    void base() {
        for (std::size_t i = 0; i < base_.parts.size(); ++i) {
            const BasePart& p = base_.parts[i];
            const double each = 2 * (p.length_mm * p.width_mm + p.length_mm * p.thick_mm + p.width_mm * p.thick_mm) * 1e-6;
            SkinFace f;
            f.key = "base " + std::to_string(i + 1), f.kind = SkinFace::Kind::base, f.name = say("Base: {}", p.name);
            f.m2 = each * p.count;
            f.working = {"all six sides × how many",
                         {{"each", square_metres(each), "Under's cut list"}, {"how many", count(p.count), "Under's cut list"}},
                         ""};
            if (f.m2 > 0) out_.push_back(std::move(f));
        }
    }

    const Top& top_;
    const std::vector<std::pair<Ring, double>>& pockets_;
    const BasePlan& base_;
    const std::vector<LetInTie>& ties_;
    std::vector<SkinFace> out_;
};

}  // namespace

double ruled_m2(const std::vector<Vec2>& above, const std::vector<Vec2>& below, double apart) {
    double sum = 0;
    for (std::size_t i = 1; i < above.size() && i < below.size(); ++i) {
        const Vec3 a{above[i - 1].x, above[i - 1].y, apart};
        const Vec3 b{above[i].x, above[i].y, apart};
        const Vec3 c{below[i].x, below[i].y, 0};
        const Vec3 d{below[i - 1].x, below[i - 1].y, 0};
        sum += (triangle(a, b, c) + triangle(a, c, d) + triangle(a, b, d) + triangle(b, c, d)) / 2;
    }
    return sum * 1e-6;
}

std::vector<SkinFace> skin_faces(const Top& top, const std::vector<std::pair<Ring, double>>& pockets, const BasePlan& base,
                                 const std::vector<LetInTie>& ties) {
    if (!top.ready || top.above.size() < 3) return {};
    return Faces(top, pockets, base, ties).run();
}

}  // namespace yb
