#include "core/material/scan/scan.h"

#include <algorithm>
#include <cmath>
#include <numeric>

#include <fmt/format.h>
#include <Eigen/Dense>

#include "core/ground/geometry/noise.h"

namespace yb {
namespace {

using V = Eigen::Vector3d;

V at(const CloudPoint& p) { return {p.x, p.y, p.z}; }

struct Plane {
    V normal{0, 0, 1};
    double offset = 0;
    double above(const V& p) const { return normal.dot(p) - offset; }
};

/// Medians of the points over square cells, each face by itself where the cloud has both.
struct CellHeights {
    std::size_t nx = 0, ny = 0;
    double y0 = 0, size = 20;
    std::vector<double> top, bottom;  ///< NaN where there is none
    bool both = false;
};

/// Both faces are there when most places have points at two heights with nothing between.
CellHeights cell_heights(const std::vector<CloudPoint>& points, double length, double size) {
    CellHeights c;
    c.size = size;
    float y0 = 1e30F;
    float y1 = -1e30F;
    for (const CloudPoint& p : points) y0 = std::min(y0, p.y), y1 = std::max(y1, p.y);
    c.y0 = std::floor(y0 / size) * size;
    c.nx = static_cast<std::size_t>(length / size) + 1;
    c.ny = static_cast<std::size_t>((y1 - c.y0) / size) + 1;
    std::vector<std::vector<float>> cells(c.nx * c.ny);
    for (const CloudPoint& p : points) {
        const auto i = std::min(c.nx - 1, static_cast<std::size_t>(std::max(0.0, p.x / size)));
        const auto j = std::min(c.ny - 1, static_cast<std::size_t>((p.y - c.y0) / size));
        cells[i * c.ny + j].push_back(p.z);
    }
    std::size_t two = 0;
    std::size_t filled = 0;
    c.top.assign(cells.size(), NAN);
    c.bottom.assign(cells.size(), NAN);
    for (std::size_t i = 0; i < cells.size(); ++i) {
        auto& z = cells[i];
        if (z.size() < 3) continue;
        ++filled;
        std::sort(z.begin(), z.end());
        float widest = 0;
        std::size_t gap = 0;
        for (std::size_t k = 1; k < z.size(); ++k)
            if (z[k] - z[k - 1] > widest) widest = z[k] - z[k - 1], gap = k;
        const auto median = [&](std::size_t from, std::size_t to) { return static_cast<double>(z[(from + to) / 2]); };
        if (widest > 12 && gap >= 2 && z.size() - gap >= 2) {
            ++two;
            c.top[i] = median(gap, z.size());
            c.bottom[i] = median(0, gap);
        } else {
            c.top[i] = median(0, z.size());
        }
    }
    c.both = filled > 0 && static_cast<double>(two) > 0.5 * static_cast<double>(filled);
    if (!c.both) std::fill(c.bottom.begin(), c.bottom.end(), NAN);
    return c;
}

double rounded(double v) { return std::round(v * 100) / 100; }

bool well_inside(const Ring& ring, Vec2 p, double cell) {
    const double d = cell / 2;
    return contains(ring, p + Vec2{d, d}) && contains(ring, p + Vec2{-d, d}) && contains(ring, p + Vec2{d, -d}) &&
           contains(ring, p + Vec2{-d, -d});
}

/// The slab's straightedge gaps from the cells that lie wholly inside its faces.
void take_heights(Slab& s, const CellHeights& c) {
    HeightGrid g;
    for (std::size_t i = 0; i < c.nx; ++i) g.x_mm.push_back((static_cast<double>(i) + 0.5) * c.size);
    for (std::size_t j = 0; j < c.ny; ++j) g.y_mm.push_back(c.y0 + (static_cast<double>(j) + 0.5) * c.size);
    g.gap_mm.assign(c.top.size(), std::nullopt);
    double high = -1e300;
    double low = 1e300;
    for (const double z : c.top)
        if (std::isfinite(z)) high = std::max(high, z);
    for (const double z : c.bottom)
        if (std::isfinite(z)) low = std::min(low, z);
    s.heights_a = g;
    if (c.both) s.heights_b = g;
    for (std::size_t i = 0; i < c.top.size(); ++i) {
        // Cells at the edge hold points of the edge itself: only whole ones are read.
        const Vec2 p{g.x_mm[i / c.ny], g.y_mm[i % c.ny]};
        if (std::isfinite(c.top[i]) && well_inside(s.outline->a, p, c.size)) s.heights_a.gap_mm[i] = rounded(high - c.top[i]);
        if (c.both && std::isfinite(c.bottom[i]) && well_inside(s.outline->b, p, c.size))
            s.heights_b.gap_mm[i] = rounded(c.bottom[i] - low);
    }
}

class Reader {
  public:
    Reader(const Cloud& cloud, const ScanOrder& order, const Work& work) : all_(cloud.points), order_(order), work_(work) {}

    ScanResult run() {
        scale();
        find_bench();
        work_.check();
        stand_up();
        work_.tell(0.5);
        pick_slab();
        work_.check();
        turn();
        work_.tell(0.7);
        split_faces();
        outline();
        heights();
        return std::move(r_);
    }

  private:
    void scale() {
        if (all_.size() < 300) throw FormatError(fmt::format("{} points are too few to find a slab in", all_.size()));
        V low = at(all_[0]);
        V high = low;
        for (const CloudPoint& p : all_) low = low.cwiseMin(at(p)), high = high.cwiseMax(at(p));
        middle_ = (low + high) / 2;
        const double size = (high - low).maxCoeff();
        k_ = order_.mm_per_unit.value_or(size < 12 ? 1000 : size < 80 ? 304.8 : size < 250 ? 10 : 1);
        r_.mm_per_unit = k_;
        if (!order_.mm_per_unit && k_ != 1)
            r_.notes.push_back(fmt::format("The file does not say its unit; it is taken as {}.", k_ == 1000 ? "metres"
                                                                                                 : k_ == 10 ? "centimetres"
                                                                                                            : "feet"));
    }

    V mm_at(std::size_t i) const { return (at(all_[i]) - middle_) * k_; }

    void find_bench() {
        Dice dice(order_.seed, 77);
        const std::size_t step = std::max<std::size_t>(1, all_.size() / 20000);
        std::vector<V> sample;
        for (std::size_t i = 0; i < all_.size(); i += step) sample.push_back(mm_at(i));
        const auto pick = [&] { return sample[static_cast<std::size_t>(dice.roll() * static_cast<double>(sample.size() - 1))]; };
        constexpr double near = 3;
        // A bench is a plane that much lies on and little lies beyond on one side.
        double best = 0;
        for (int round = 0; round < 400; ++round) {
            const V a = pick();
            const V n = (pick() - a).cross(pick() - a);
            if (n.norm() < 1e3) continue;
            Plane p{n.normalized(), 0};
            p.offset = p.normal.dot(a);
            double on = 0;
            double over = 0;
            double under = 0;
            for (const V& q : sample) {
                const double h = p.above(q);
                if (std::abs(h) < near) ++on;
                else ++(h > 0 ? over : under);
            }
            if (under > over) std::swap(over, under), p.normal = -p.normal, p.offset = -p.offset;
            // The bench reaches out further than what lies on it: of two planes that face each other it is the wider.
            V mean = V::Zero();
            V square = V::Zero();
            for (const V& q : sample)
                if (std::abs(p.above(q)) < near) mean += q, square += q.cwiseProduct(q);
            mean /= std::max(1.0, on);
            const double spread = (square / std::max(1.0, on) - mean.cwiseProduct(mean)).sum();
            const double score = (on - 3 * under) * spread;
            if (score > best) best = score, bench_ = p;
        }
        double on = 0;
        double under = 0;
        for (const V& q : sample) {
            const double h = bench_.above(q);
            if (std::abs(h) < near) ++on;
            else if (h < 0) ++under;
        }
        if (best <= 0 || on - 3 * under < 0.05 * static_cast<double>(sample.size()))
            throw FormatError("no flat bench is found under the slab; scan a hand's width of the bench around it too");
        // Refined on the points that lie on it.
        for (int round = 0; round < 3; ++round) {
            V mean = V::Zero();
            double n = 0;
            for (const V& q : sample)
                if (std::abs(bench_.above(q)) < near) mean += q, ++n;
            mean /= n;
            Eigen::Matrix3d m = Eigen::Matrix3d::Zero();
            double sum = 0;
            for (const V& q : sample)
                if (std::abs(bench_.above(q)) < near) m += (q - mean) * (q - mean).transpose(), sum += bench_.above(q) * bench_.above(q);
            const Eigen::SelfAdjointEigenSolver<Eigen::Matrix3d> solve(m);
            V normal = solve.eigenvectors().col(0);
            if (normal.dot(bench_.normal) < 0) normal = -normal;
            bench_ = {normal, normal.dot(mean)};
            r_.bench_noise_mm = std::sqrt(sum / n);
        }
    }

    /// Turns the cloud so that the bench is z = 0.
    void stand_up() {
        const Eigen::Matrix3d turn = Eigen::Quaterniond::FromTwoVectors(bench_.normal, V::UnitZ()).toRotationMatrix();
        above_.reserve(all_.size());
        for (std::size_t i = 0; i < all_.size(); ++i) {
            const V p = mm_at(i);
            const double h = bench_.above(p);
            if (h < order_.least_height_mm) continue;
            const V q = turn * p;
            above_.push_back({static_cast<float>(q.x()), static_cast<float>(q.y()), static_cast<float>(h)});
        }
        if (above_.size() < 200)
            throw FormatError(fmt::format("nothing stands {} mm above the bench: there is no slab in it", order_.least_height_mm));
    }

    /// The largest patch of the plan that hangs together; a second one as large is another slab.
    void pick_slab() {
        constexpr double cell = 15;
        float x0 = 1e30F;
        float y0 = 1e30F;
        float x1 = -1e30F;
        float y1 = -1e30F;
        for (const CloudPoint& p : above_) x0 = std::min(x0, p.x), x1 = std::max(x1, p.x), y0 = std::min(y0, p.y), y1 = std::max(y1, p.y);
        const auto nx = static_cast<std::size_t>((x1 - x0) / cell) + 1;
        const auto ny = static_cast<std::size_t>((y1 - y0) / cell) + 1;
        if (nx * ny > 20'000'000) throw FormatError("the points lie too far apart for one slab: a stray point, or the wrong unit");
        const auto cell_of = [&](const CloudPoint& p) {
            return static_cast<std::size_t>((p.x - x0) / cell) * ny + static_cast<std::size_t>((p.y - y0) / cell);
        };
        std::vector<int> patch(nx * ny, -1);
        for (const CloudPoint& p : above_) patch[cell_of(p)] = 0;
        std::vector<std::size_t> sizes{0};
        std::vector<std::size_t> stack;
        for (std::size_t c = 0; c < patch.size(); ++c) {
            if (patch[c] != 0) continue;
            const int name = static_cast<int>(sizes.size());
            sizes.push_back(0);
            stack.push_back(c);
            patch[c] = name;
            while (!stack.empty()) {
                const std::size_t q = stack.back();
                stack.pop_back();
                ++sizes.back();
                const auto i = static_cast<std::ptrdiff_t>(q / ny);
                const auto j = static_cast<std::ptrdiff_t>(q % ny);
                for (std::ptrdiff_t di = -2; di <= 2; ++di)
                    for (std::ptrdiff_t dj = -2; dj <= 2; ++dj) {
                        const auto a = i + di;
                        const auto b = j + dj;
                        if (a < 0 || b < 0 || a >= static_cast<std::ptrdiff_t>(nx) || b >= static_cast<std::ptrdiff_t>(ny)) continue;
                        const auto other = static_cast<std::size_t>(a) * ny + static_cast<std::size_t>(b);
                        if (patch[other] == 0) patch[other] = name, stack.push_back(other);
                    }
            }
        }
        const auto largest = std::max_element(sizes.begin(), sizes.end());
        const int name = static_cast<int>(largest - sizes.begin());
        for (std::size_t i = 0; i < sizes.size(); ++i)
            if (static_cast<int>(i) != name && static_cast<double>(sizes[i]) > 0.4 * static_cast<double>(*largest))
                throw FormatError("two slabs lie in it; cut the scan so that one is left");
        std::erase_if(above_, [&](const CloudPoint& p) { return patch[cell_of(p)] != name; });
    }

    /// The long axis along x, from the left end.
    void turn() {
        double mx = 0;
        double my = 0;
        for (const CloudPoint& p : above_) mx += p.x, my += p.y;
        mx /= static_cast<double>(above_.size());
        my /= static_cast<double>(above_.size());
        double xx = 0;
        double xy = 0;
        double yy = 0;
        for (const CloudPoint& p : above_) xx += (p.x - mx) * (p.x - mx), xy += (p.x - mx) * (p.y - my), yy += (p.y - my) * (p.y - my);
        const double angle = 0.5 * std::atan2(2 * xy, xx - yy);
        const double c = std::cos(angle);
        const double s = std::sin(angle);
        float low = 1e30F;
        for (CloudPoint& p : above_) {
            const double x = p.x - mx;
            const double y = p.y - my;
            p.x = static_cast<float>(c * x + s * y);
            p.y = static_cast<float>(-s * x + c * y);
            low = std::min(low, p.x);
        }
        // A stray point at the end does not make the slab longer.
        std::vector<float> xs;
        for (std::size_t i = 0; i < above_.size(); i += std::max<std::size_t>(1, above_.size() / 50000)) xs.push_back(above_[i].x);
        std::nth_element(xs.begin(), xs.begin() + static_cast<std::ptrdiff_t>(xs.size() / 2000), xs.end());
        const float start = above_.size() < 5000 ? low : std::max(low, xs[xs.size() / 2000] - 4);
        for (CloudPoint& p : above_) p.x -= start;
        std::erase_if(above_, [](const CloudPoint& p) { return p.x < 0; });
        for (const CloudPoint& p : above_) length_ = std::max<double>(length_, p.x);
        r_.used = above_.size();
    }

    void split_faces() {
        cells_ = cell_heights(above_, length_, order_.cell_mm);
        r_.both_faces = cells_.both;
        if (!r_.both_faces)
            r_.notes.emplace_back(
                "The scan shows one face; the other is taken to lie on the bench. Read its heights after turning it over.");
    }

    void outline() {
        // Slices along the slab; in each the outermost points that are not alone.
        const double per_mm2 = static_cast<double>(above_.size()) / std::max(1.0, length_ * static_cast<double>(cells_.ny) * cells_.size);
        const double slice = std::clamp(120 / std::max(1e-6, per_mm2 * static_cast<double>(cells_.ny) * cells_.size), 6.0, 40.0);
        const auto n = static_cast<std::size_t>(length_ / slice);
        std::vector<std::vector<float>> upper(n), lower(n);
        const float split = [&] {
            double sum = 0;
            double count = 0;
            for (std::size_t i = 0; i < cells_.top.size(); ++i)
                if (std::isfinite(cells_.top[i]) && std::isfinite(cells_.bottom[i]))
                    sum += (cells_.top[i] + cells_.bottom[i]) / 2, count += 1;
            return count > 0 ? static_cast<float>(sum / count) : -1.0F;
        }();
        for (const CloudPoint& p : above_) {
            const auto i = static_cast<std::size_t>(p.x / slice);
            if (i >= n) continue;
            (p.z > split ? upper : lower)[i].push_back(p.y);
        }
        const auto edge = [](std::vector<float>& y, bool high) {
            std::sort(y.begin(), y.end());
            const std::size_t k = std::min<std::size_t>(y.size() / 3, 1);  // one stray point is not an edge
            // Evenly strewn points stop short of the edge by their mean spacing, the one before the last by two.
            const double beyond = static_cast<double>(y.back() - y.front()) / static_cast<double>(y.size()) * static_cast<double>(k + 1);
            return high ? y[y.size() - 1 - k] + beyond : y[k] - beyond;
        };
        std::vector<Vec2> right_a, left_a, right_b, left_b;
        for (std::size_t i = 0; i < n; ++i) {
            if (upper[i].size() < 4) continue;
            const double x = i == 0 ? 0 : i + 1 == n ? length_ : (static_cast<double>(i) + 0.5) * slice;
            right_a.push_back({x, edge(upper[i], false)});
            left_a.push_back({x, edge(upper[i], true)});
            const bool below = r_.both_faces && lower[i].size() >= 4;
            right_b.push_back({x, below ? edge(lower[i], false) : right_a.back().y});
            left_b.push_back({x, below ? edge(lower[i], true) : left_a.back().y});
        }
        if (right_a.size() < 4) throw FormatError("the slab has too few points along it to find its edges");
        TracedOutline o;
        const auto ring = [](std::vector<Vec2> right, const std::vector<Vec2>& left) {
            right.insert(right.end(), left.rbegin(), left.rend());
            return to_tenths(std::move(right));
        };
        o.a = ring(smoothed(right_a), smoothed(left_a));
        o.b = ring(smoothed(right_b), smoothed(left_b));
        r_.error_mm = std::max(r_.bench_noise_mm, 0.5 / std::sqrt(std::max(1e-6, per_mm2)));
        o.error_mm = std::round(r_.error_mm * 10) / 10;
        o.from = "scan";
        r_.slab.outline = o;
    }

    /// Mean of three: takes the spacing of the points out, leaves the shape.
    static std::vector<Vec2> smoothed(const std::vector<Vec2>& v) {
        std::vector<Vec2> out = v;
        for (std::size_t i = 1; i + 1 < v.size(); ++i) out[i].y = (v[i - 1].y + 2 * v[i].y + v[i + 1].y) / 4;
        return out;
    }

    void heights() {
        Slab& s = r_.slab;
        take_heights(s, cells_);
        const HeightGrid& g = s.heights_a;
        // Thickness at stations: between the faces, or down to the bench where the slab touches it.
        const int n = std::max(1, static_cast<int>(std::round(length_ / 300)));
        for (int k = 0; k <= n; ++k) {
            Station st;
            st.x_mm = rounded(length_ * k / n);
            const auto i =
                std::min(cells_.nx - 1, static_cast<std::size_t>(std::clamp(st.x_mm, cells_.size, length_ - cells_.size) / cells_.size));
            std::vector<double> all;
            for (std::size_t j = 0; j < cells_.ny; ++j) {
                const double t = cells_.top[i * cells_.ny + j] - (r_.both_faces ? cells_.bottom[i * cells_.ny + j] : 0);
                if (std::isfinite(t) && well_inside(s.outline->a, {g.x_mm[i], g.y_mm[j]}, cells_.size)) all.push_back(t);
            }
            if (all.empty()) continue;
            std::sort(all.begin(), all.end());
            // A bent slab touches the bench at its lowest places only: the least is nearest to the truth.
            st.thickness_mm = rounded(r_.both_faces ? all[all.size() / 2] : all.front());
            s.tape.stations.push_back(st);
        }
        r_.on_slab = std::move(above_);
    }

    const std::vector<CloudPoint>& all_;
    const ScanOrder& order_;
    const Work& work_;
    ScanResult r_;
    V middle_ = V::Zero();
    double k_ = 1, length_ = 0;
    Plane bench_;
    std::vector<CloudPoint> above_;
    CellHeights cells_;
};

}  // namespace

Slab with_all_heights(const Slab& slab, const std::vector<CloudPoint>& on_slab, double cell_mm) {
    Slab out = slab;
    if (!slab.outline || on_slab.size() < 300) return out;
    double length = 0;
    for (const CloudPoint& p : on_slab) length = std::max<double>(length, p.x);
    take_heights(out, cell_heights(on_slab, length, cell_mm));
    return out;
}

ScanResult slab_from_scan(const Cloud& cloud, const ScanOrder& order, const Work& work) { return Reader(cloud, order, work).run(); }

}  // namespace yb
