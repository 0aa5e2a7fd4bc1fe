#include "vision/photo.h"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>
#include <opencv2/imgproc.hpp>

#include "core/steps/lay/place.h"

namespace yb {
namespace {

using M = cv::Matx33d;

M scaled(double k) { return {k, 0, 0, 0, k, 0, 0, 0, 1}; }
M moved(double x, double y) { return {1, 0, x, 0, 1, y, 0, 0, 1}; }
Vec2 through(const M& m, Vec2 p) {
    const cv::Vec3d q = m * cv::Vec3d(p.x, p.y, 1);
    return {q[0] / q[2], q[1] / q[2]};
}

/// Corners sorted around their middle, beginning at the upper left; the photograph's y points down.
std::array<Vec2, 4> around(std::array<Vec2, 4> c) {
    Vec2 mid;
    for (const Vec2 p : c) mid = mid + p * 0.25;
    std::sort(c.begin(), c.end(),
              [&](Vec2 a, Vec2 b) { return std::atan2(a.y - mid.y, a.x - mid.x) < std::atan2(b.y - mid.y, b.x - mid.x); });
    std::size_t first = 0;
    for (std::size_t i = 1; i < 4; ++i)
        if (c[i].x + c[i].y < c[first].x + c[first].y) first = i;
    std::rotate(c.begin(), c.begin() + static_cast<std::ptrdiff_t>(first), c.end());
    for (std::size_t i = 0; i < 4; ++i) {
        const double turn = cross(c[(i + 1) % 4] - c[i], c[(i + 2) % 4] - c[(i + 1) % 4]);
        const double size = length(c[(i + 1) % 4] - c[i]) * length(c[(i + 2) % 4] - c[(i + 1) % 4]);
        if (turn < 0.05 * size)
            throw PhotoError(
                "the four corners do not stand around a rectangle: two are too near each other, or one lies between others. Mark them "
                "again");
    }
    return c;
}

/// Photograph px to mm in the plane of the face.
M plane_of(const PhotoOrder& order) {
    if (const auto* r = std::get_if<KnownRectangle>(&order.known)) {
        if (!(r->width_mm > 0) || !(r->height_mm > 0)) throw PhotoError("the size of what was marked has to be more than nothing");
        const auto c = around(r->corners_px);
        std::vector<cv::Point2f> from;
        for (const Vec2 p : c) from.emplace_back(static_cast<float>(p.x), static_cast<float>(p.y));
        const auto w = static_cast<float>(r->width_mm);
        const auto h = static_cast<float>(r->height_mm);
        const std::vector<cv::Point2f> to{{0, 0}, {w, 0}, {w, h}, {0, h}};
        return M(static_cast<const double*>(cv::getPerspectiveTransform(from, to).ptr<double>()));
    }
    const auto& l = std::get<KnownLengths>(order.known);
    const double along = length(l.along_px[1] - l.along_px[0]);
    const double across = length(l.across_px[1] - l.across_px[0]);
    if (along < 5 || across < 5 || !(l.along_mm > 0) || !(l.across_mm > 0))
        throw PhotoError("a length was marked that is too short to measure by. Mark two longer ones, one along and one across");
    const Vec2 u = (l.along_px[1] - l.along_px[0]) * (1 / along);
    if (std::abs(dot(u, l.across_px[1] - l.across_px[0])) > 0.5 * across)
        throw PhotoError("both lengths run the same way. Mark one along the slab and one across it");
    return M(u.x * l.along_mm / along, u.y * l.along_mm / along, 0, -u.y * l.across_mm / across, u.x * l.across_mm / across, 0, 0, 0, 1);
}

class Tracer {
  public:
    Tracer(const Picture& photo, const PhotoOrder& order, const Work& work) : order_(order), work_(work) {
        if (photo.width < 40 || photo.height < 40) throw PhotoError("the photograph is too small to find a slab in");
        photo_ = cv::Mat(photo.height, photo.width, CV_8UC3, const_cast<std::uint8_t*>(photo.rgb.data()));
    }

    PhotoResult run() {
        to_mm_ = plane_of(order_);
        extent();
        work_.tell(0.1);
        const std::vector<cv::Point> rough = segment();
        work_.check();
        work_.tell(0.6);
        lay(rough);
        refine();
        work_.tell(0.9);
        finish();
        return std::move(r_);
    }

  private:
    /// What the photograph shows of the plane, not further than ten metres.
    void extent() {
        low_ = {1e9, 1e9};
        high_ = {-1e9, -1e9};
        constexpr int n = 24;
        for (int i = 0; i <= n; ++i)
            for (int j = 0; j <= n; ++j) {
                if (i != 0 && i != n && j != 0 && j != n) continue;
                const cv::Vec3d q =
                    to_mm_ * cv::Vec3d(photo_.cols * static_cast<double>(i) / n, photo_.rows * static_cast<double>(j) / n, 1);
                if (q[2] <= 1e-9) continue;  // beyond the horizon
                const Vec2 p{q[0] / q[2], q[1] / q[2]};
                low_ = {std::min(low_.x, p.x), std::min(low_.y, p.y)};
                high_ = {std::max(high_.x, p.x), std::max(high_.y, p.y)};
            }
        low_ = {std::max(low_.x, -10000.0), std::max(low_.y, -10000.0)};
        high_ = {std::min(high_.x, 10000.0), std::min(high_.y, 10000.0)};
        if (high_.x - low_.x < 50 || high_.y - low_.y < 50)
            throw PhotoError("what was marked covers more than the photograph shows: its size or a corner is wrong");
    }

    std::vector<cv::Point> segment() {
        coarse_ = std::max(high_.x - low_.x, high_.y - low_.y) / 420;
        const cv::Size size(static_cast<int>((high_.x - low_.x) / coarse_) + 1, static_cast<int>((high_.y - low_.y) / coarse_) + 1);
        const M to_coarse = scaled(1 / coarse_) * moved(-low_.x, -low_.y) * to_mm_;
        cv::Mat image;
        cv::Mat valid;
        // Shrunk first, so that a coarse pixel is the mean of what it covers.
        cv::Mat small = photo_;
        M shrink = M::eye();
        while (small.cols > 1600) {
            cv::Mat half;
            cv::resize(small, half, {small.cols / 2, small.rows / 2}, 0, 0, cv::INTER_AREA);
            shrink =
                M(static_cast<double>(half.cols) / small.cols, 0, 0, 0, static_cast<double>(half.rows) / small.rows, 0, 0, 0, 1) * shrink;
            small = half;
        }
        const M from_small = to_coarse * shrink.inv();
        cv::warpPerspective(small, image, from_small, size, cv::INTER_LINEAR, cv::BORDER_REPLICATE);
        cv::warpPerspective(cv::Mat(small.size(), CV_8U, cv::Scalar(255)), valid, from_small, size, cv::INTER_NEAREST, cv::BORDER_CONSTANT,
                            cv::Scalar(0));
        // Floor shows around the slab: a band along the border is taken for floor.
        cv::Mat inner;
        const int band = std::max(3, std::min(size.width, size.height) / 28);
        cv::Mat framed;
        cv::copyMakeBorder(valid, framed, 1, 1, 1, 1, cv::BORDER_CONSTANT, cv::Scalar(0));
        cv::erode(framed, inner, cv::getStructuringElement(cv::MORPH_RECT, {2 * band + 1, 2 * band + 1}));
        inner = inner(cv::Rect(1, 1, size.width, size.height));
        cv::Mat mask(size, CV_8U, cv::Scalar(cv::GC_BGD));
        mask.setTo(cv::GC_PR_FGD, inner);
        // What is painted as no slab takes the floor's colour: another slab of the same wood must not teach that wood
        // is floor.
        const cv::Scalar floor_colour = cv::mean(image, valid & ~inner);
        for (const Stroke& s : order_.strokes)
            for (std::size_t i = 0; i < s.points_px.size(); ++i) {
                const Vec2 a = through(to_coarse, s.points_px[i]);
                const Vec2 b = through(to_coarse, s.points_px[std::min(i + 1, s.points_px.size() - 1)]);
                const Vec2 side = through(to_coarse, s.points_px[i] + Vec2{s.width_px, 0});
                const cv::Point from(static_cast<int>(a.x), static_cast<int>(a.y));
                const cv::Point to(static_cast<int>(b.x), static_cast<int>(b.y));
                const int thick = std::max(1, static_cast<int>(length(side - a)));
                cv::line(mask, from, to, cv::Scalar(s.slab ? cv::GC_FGD : cv::GC_BGD), thick);
                if (!s.slab) cv::line(image, from, to, floor_colour, thick);
            }
        cv::Mat floor;
        cv::Mat wood;
        cv::setRNGSeed(1);
        try {
            cv::grabCut(image, mask, {}, floor, wood, 4, cv::GC_INIT_WITH_MASK);
        } catch (const cv::Exception&) {
            throw PhotoError("slab and floor can't be told apart. Paint over some of each");
        }
        cv::Mat slab = (mask == cv::GC_FGD) | (mask == cv::GC_PR_FGD);
        cv::morphologyEx(slab, slab, cv::MORPH_OPEN, cv::getStructuringElement(cv::MORPH_ELLIPSE, {5, 5}));
        std::vector<std::vector<cv::Point>> all;
        cv::findContours(slab, all, cv::RETR_EXTERNAL, cv::CHAIN_APPROX_NONE);
        std::sort(all.begin(), all.end(), [](const auto& a, const auto& b) { return cv::contourArea(a) > cv::contourArea(b); });
        const double whole = static_cast<double>(cv::countNonZero(valid));
        if (all.empty() || cv::contourArea(all[0]) < 0.02 * whole)
            throw PhotoError(
                "no slab is found in the photograph. Lay it on a floor of another colour, leave some floor around it, or paint over it");
        if (all.size() > 1 && cv::contourArea(all[1]) > 0.35 * cv::contourArea(all[0]))
            throw PhotoError("two slabs are found in the photograph. Paint ‘not slab’ over one, or cut it off");
        return all[0];
    }

    /// Turns the slab so that it lies lengthwise and warps the photograph once, at the fine scale.
    void lay(const std::vector<cv::Point>& rough) {
        std::vector<cv::Point2f> mm;
        for (const cv::Point p : rough)
            mm.emplace_back(static_cast<float>(low_.x + (p.x + 0.5) * coarse_), static_cast<float>(low_.y + (p.y + 0.5) * coarse_));
        const cv::RotatedRect box = cv::minAreaRect(mm);
        double angle = box.angle * CV_PI / 180;
        if (box.size.width < box.size.height) angle += CV_PI / 2;
        if (std::cos(angle) < 0) angle += CV_PI;  // what is left in the photograph stays left
        const M turn(std::cos(angle), std::sin(angle), 0, -std::sin(angle), std::cos(angle), 0, 0, 0, 1);
        const double k = order_.mm_per_px;
        Vec2 a{1e9, 1e9};
        Vec2 b{-1e9, -1e9};
        for (const auto& p : mm) {
            const Vec2 q = through(turn, {p.x, p.y});
            a = {std::min(a.x, q.x), std::min(a.y, q.y)};
            b = {std::max(b.x, q.x), std::max(b.y, q.y)};
        }
        const double margin = 20 + 4 * coarse_;
        a = a - Vec2{margin, margin};
        b = b + Vec2{margin, margin};
        const cv::Size size(static_cast<int>((b.x - a.x) / k) + 1, static_cast<int>((b.y - a.y) / k) + 1);
        if (static_cast<double>(size.width) * size.height > 60e6)
            throw PhotoError("the slab would be larger than sixty million pixels: a coarser picture, or another size of what was marked");
        to_fine_ = scaled(1 / k) * moved(-a.x, -a.y) * turn * to_mm_;
        cv::warpPerspective(photo_, fine_, to_fine_, size, cv::INTER_LINEAR, cv::BORDER_REPLICATE);
        const M place = scaled(1 / k) * moved(-a.x, -a.y) * turn;
        // Evenly strewn along the outline, a few millimetres apart.
        Ring ring;
        for (const auto& p : mm) ring.push_back(through(place, {p.x, p.y}));
        double girth = 0;
        for (std::size_t i = 0; i < ring.size(); ++i) girth += length(ring[(i + 1) % ring.size()] - ring[i]);
        const double step = std::max(2.0, 4 / k);
        double left = 0;
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Vec2 d = ring[(i + 1) % ring.size()] - ring[i];
            const double len = length(d);
            for (; left < len; left += step) edge_.push_back(ring[i] + d * (left / len));
            left -= len;
        }
        if (edge_.size() < 20 || girth < 40)
            throw PhotoError("the slab found is too small. Mark something larger to measure by, or come nearer with the camera");
    }

    /// Moves each point across the edge to where the colours on both sides differ most.
    void refine() {
        const double k = order_.mm_per_px;
        cv::Mat soft;
        cv::GaussianBlur(fine_, soft, {5, 5}, 1.2);
        for (int round = 0; round < 2; ++round) {
            const double reach = (round == 0 ? 2.6 : 1.0) * coarse_ / k;
            const int n = std::max(4, static_cast<int>(reach));
            const int window = std::max(3, static_cast<int>(5 / k));
            std::vector<double> shift(edge_.size());
            std::vector<Vec2> normals(edge_.size());
            for (std::size_t i = 0; i < edge_.size(); ++i) {
                const std::size_t m = edge_.size();
                const Vec2 t = edge_[(i + 4) % m] - edge_[(i + m - 4) % m];
                normals[i] = Vec2{t.y, -t.x} * (1 / std::max(1e-9, length(t)));
                std::vector<cv::Vec3d> line;
                for (int s = -n - window; s <= n + window; ++s) {
                    const Vec2 q = edge_[i] + normals[i] * s;
                    const int x = std::clamp(static_cast<int>(std::lround(q.x)), 0, soft.cols - 1);
                    const int y = std::clamp(static_cast<int>(std::lround(q.y)), 0, soft.rows - 1);
                    line.emplace_back(soft.at<cv::Vec3b>(y, x));
                }
                std::vector<cv::Vec3d> sum(line.size() + 1);
                for (std::size_t s = 0; s < line.size(); ++s) sum[s + 1] = sum[s] + line[s];
                double best = -1;
                for (int s = -n; s <= n; ++s) {
                    const auto at = static_cast<std::size_t>(s + n + window);
                    const auto w = static_cast<std::size_t>(window);
                    const cv::Vec3d in = (sum[at] - sum[at - w]) / window;
                    const cv::Vec3d out = (sum[at + w] - sum[at]) / window;
                    const double step = cv::norm(in - out) * (1 - 0.35 * std::abs(s) / n);  // where in doubt, near
                    if (step > best) best = step, shift[i] = s - 0.5;
                }
            }
            // A single point that jumps is a knot or a shadow, not the edge.
            const std::vector<double> found = shift;
            const std::size_t m = found.size();
            for (std::size_t i = 0; i < m; ++i) {
                std::array<double, 9> w{};
                for (std::size_t j = 0; j < w.size(); ++j) w[j] = found[(i + m + j - w.size() / 2) % m];
                std::nth_element(w.begin(), w.begin() + 4, w.end());
                edge_[i] = edge_[i] + normals[i] * w[4];
            }
        }
    }

    void finish() {
        const double k = order_.mm_per_px;
        // Mean of five takes the pixels out; then chords within the tolerance.
        Ring smooth = edge_;
        const std::size_t m = edge_.size();
        for (std::size_t i = 0; i < m; ++i)
            smooth[i] = (edge_[(i + m - 2) % m] + edge_[(i + m - 1) % m] * 2 + edge_[i] * 2 + edge_[(i + 1) % m] * 2 + edge_[(i + 2) % m]) *
                        (1.0 / 8);
        double off = 0;
        for (std::size_t i = 0; i < m; ++i) off += dot(edge_[i] - smooth[i], edge_[i] - smooth[i]);
        std::vector<cv::Point2f> in;
        for (const Vec2 p : smooth) in.emplace_back(static_cast<float>(p.x), static_cast<float>(p.y));
        std::vector<cv::Point2f> out;
        cv::approxPolyDP(in, out, std::max(0.05, order_.tolerance_mm / k), true);
        Ring ring;
        for (const auto& p : out) ring.push_back({p.x, p.y});
        const Box b = bounds(ring);
        const Vec2 origin{b.low.x, (b.low.y + b.high.y) / 2};
        for (Vec2& p : ring) p = {std::round((p.x - origin.x) * k * 100) / 100, std::round((origin.y - p.y) * k * 100) / 100};
        if (signed_area(ring) < 0) std::reverse(ring.begin(), ring.end());
        if (ring.size() < 4 || self_crossing(ring))
            throw PhotoError("the edge found crosses itself. Paint over slab and floor where they look alike");
        r_.error_mm = std::sqrt(off / static_cast<double>(m)) * k + k / 2;
        r_.outline = {ring, ring, std::round(r_.error_mm * 10) / 10, "photograph"};
        r_.place = {"", k, fine_.cols, fine_.rows, {-origin.x * k, origin.y * k}, false};
        const M back = (to_fine_).inv() * moved(origin.x, origin.y) * M(1 / k, 0, 0, 0, -1 / k, 0, 0, 0, 1);
        for (int i = 0; i < 9; ++i) r_.to_photo[static_cast<std::size_t>(i)] = back.val[i];
        r_.face = Picture(fine_.cols, fine_.rows);
        for (int y = 0; y < fine_.rows; ++y)
            std::copy_n(fine_.ptr<std::uint8_t>(y), static_cast<std::size_t>(fine_.cols) * 3, r_.face.at(0, y));
    }

    const PhotoOrder& order_;
    const Work& work_;
    cv::Mat photo_, fine_;
    M to_mm_, to_fine_;
    Vec2 low_, high_;
    double coarse_ = 4;
    Ring edge_;  ///< px in the fine picture
    PhotoResult r_;
};

}  // namespace

PhotoResult slab_from_photo(const Picture& photo, const PhotoOrder& order, const Work& work) { return Tracer(photo, order, work).run(); }

TracedOutline match_outlines(const TracedOutline& a, const TracedOutline& below) {
    Ring b = below.a;
    for (Vec2& p : b) p.y = -p.y;  // turned over about its long axis
    std::reverse(b.begin(), b.end());
    const Box box_a = bounds(a.a);
    const Box box_b = bounds(b);
    if (std::abs(box_a.width() - box_b.width()) > box_a.width() / 50)
        throw PhotoError(fmt::format("the two faces are {:.0f} and {:.0f} mm long: one is another slab, or was marked wrongly",
                                     box_a.width(), box_b.width()));
    const std::size_t n = std::max<std::size_t>(8, static_cast<std::size_t>(box_a.width() / 15));
    TracedOutline out = a;
    out.a = at_stations(a.a, box_a.low.x, box_a.high.x, n);
    // Slid across to where the edges agree best in the mean, then read at the same shares of the length.
    Ring other = at_stations(b, box_b.low.x, box_b.high.x, n);
    if (other.size() != out.a.size()) throw PhotoError("the two outlines can't be matched: one of them has a gap. Trace it again");
    double shift = 0;
    for (std::size_t i = 0; i < other.size(); ++i) shift += (out.a[i].y - other[i].y) / static_cast<double>(other.size());
    for (std::size_t i = 0; i < other.size(); ++i) other[i] = {out.a[i].x, other[i].y + shift};
    out.b = other;
    out.error_mm = std::max(a.error_mm, below.error_mm);
    return out;
}

}  // namespace yb
