#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <locale>
#include <memory>
#include <mutex>
#include <numbers>
#include <sstream>
#include <stdexcept>
#include <string>
#include <string_view>

#include <sys/mman.h>
#include <unistd.h>

#include <dxflib/dl_creationadapter.h>
#include <dxflib/dl_dxf.h>
#include <fmt/format.h>

#include "core/ground/file/format_error.h"
#include "core/ground/file/text.h"
#include "core/material/drawing/drawing.h"

namespace yb {
namespace {

constexpr double pi = std::numbers::pi;

class Collector : public DL_CreationAdapter {
  public:
    explicit Collector(const Work& work) : work_(work) {}
    Drawing drawing;

    void addLine(const DL_LineData& l) override { put({{l.x1, l.y1}, {l.x2, l.y2}}, false); }
    void addArc(const DL_ArcData& a) override {
        double sweep = a.angle2 - a.angle1;
        if (sweep <= 0) sweep += 360;
        Ring r;
        turn(r, {a.cx, a.cy}, a.radius, a.angle1 * pi / 180, sweep * pi / 180);
        put(std::move(r), false);
    }
    void addCircle(const DL_CircleData& c) override {
        Ring r;
        turn(r, {c.cx, c.cy}, c.radius, 0, 2 * pi);
        r.pop_back();
        put(std::move(r), true);
    }
    void addEllipse(const DL_EllipseData& e) override {
        // From its middle to the end of the long axis, and square to it by the ratio; angles run along the ellipse.
        const Vec2 major{e.mx, e.my};
        const Vec2 minor = Vec2{-e.my, e.mx} * e.ratio;
        double sweep = e.angle2 - e.angle1;
        if (sweep <= 1e-9) sweep += 2 * pi;
        const bool whole = sweep > 2 * pi - 1e-6;
        const int n = chords(length(major), sweep);
        Ring r;
        for (int i = 0; i <= (whole ? n - 1 : n); ++i) {
            const double t = e.angle1 + sweep * i / n;
            r.push_back(Vec2{e.cx, e.cy} + major * std::cos(t) + minor * std::sin(t));
        }
        put(std::move(r), whole);
    }
    void addPolyline(const DL_PolylineData& p) override {
        finish();
        in_polyline_ = true;
        closed_ = (p.flags & 1) != 0;
    }
    void addVertex(const DL_VertexData& v) override { vertices_.push_back({v.x, v.y, v.bulge}); }
    void endSequence() override { finish(); }
    void endEntity() override {
        if (in_spline_) finish_spline();
    }
    void addSpline(const DL_SplineData& s) override {
        finish();
        in_spline_ = true;
        degree_ = static_cast<std::size_t>(s.degree);
        closed_ = (s.flags & 1) != 0;
        control_.clear(), knots_.clear(), fit_.clear();
    }
    void addControlPoint(const DL_ControlPointData& p) override { control_.push_back({p.x, p.y}); }
    void addKnot(const DL_KnotData& k) override { knots_.push_back(k.k); }
    void addFitPoint(const DL_FitPointData& p) override { fit_.push_back({p.x, p.y}); }
    void setVariableInt(const std::string& key, int value, int) override {
        if (key != "$INSUNITS") return;
        static constexpr std::pair<int, double> units[] = {{1, 25.4}, {2, 304.8}, {4, 1}, {5, 10}, {6, 1000}, {10, 914.4}, {14, 100}};
        for (const auto& [code, mm] : units)
            if (code == value) drawing.mm_per_unit = mm;
    }

    void finish() {
        if (!in_polyline_) return;
        in_polyline_ = false;
        Ring r;
        const std::size_t n = vertices_.size();
        for (std::size_t i = 0; i < n; ++i) {
            const auto& v = vertices_[i];
            r.push_back({v.x, v.y});
            if (v.bulge == 0 || (!closed_ && i + 1 == n)) continue;
            // A bulge is the tangent of a quarter of the arc to the next vertex.
            const auto& w = vertices_[(i + 1) % n];
            const Vec2 a{v.x, v.y};
            const Vec2 b{w.x, w.y};
            const double sweep = 4 * std::atan(v.bulge);
            const double chord = length(b - a);
            if (chord < 1e-12 || !std::isfinite(sweep) || std::abs(sweep) < 1e-9) continue;
            const double radius = chord / 2 / std::sin(std::abs(sweep) / 2);
            const Vec2 normal = Vec2{-(b - a).y, (b - a).x} * (1 / chord);
            const double rise = radius * std::cos(std::abs(sweep) / 2) * (sweep > 0 ? 1 : -1);
            const Vec2 centre = (a + b) * 0.5 + normal * rise;
            Ring bent;
            turn(bent, centre, radius, std::atan2(a.y - centre.y, a.x - centre.x), sweep);
            r.insert(r.end(), bent.begin() + 1, bent.end() - 1);
        }
        vertices_.clear();
        put(std::move(r), closed_);
    }

    void finish_spline() {
        in_spline_ = false;
        Ring r;
        if (knots_.empty() && control_.size() > degree_ && degree_ >= 1) give_knots();
        if (!std::is_sorted(knots_.begin(), knots_.end())) throw FormatError("DXF: the knots of a spline are out of order");
        if (control_.size() > degree_ && knots_.size() == control_.size() + degree_ + 1 && degree_ >= 1) {
            // De Boor between the first and the last knot that count.
            const double from = knots_[degree_];
            const double to = knots_[control_.size()];
            const std::size_t n = control_.size() * 12;
            for (std::size_t i = 0; i <= n; ++i) r.push_back(de_boor(from + (to - from) * static_cast<double>(i) / static_cast<double>(n)));
        } else {
            r = fit_;
        }
        put(std::move(r), closed_);
    }

  private:
    struct Vertex {
        double x, y, bulge;
    };

    void put(Ring r, bool closed) {
        if (drawing.paths.size() % 256 == 0) work_.check();
        points_ += r.size();
        if (points_ > most_drawing_points)
            throw FormatError(
                fmt::format("DXF: more than {} million points are not read. Draw it with fewer", most_drawing_points / 1000000));
        if (r.size() > 1) drawing.paths.push_back({std::move(r), closed, plain_text(attributes.getLayer())});
    }

    /// How many chords keep to an arc.
    static int chords(double radius, double sweep) {
        const double wanted = std::ceil(std::abs(sweep) * std::sqrt(std::max(1.0, std::abs(radius)) / 0.4));
        return wanted < 720 ? std::max(8, static_cast<int>(wanted)) : 720;
    }

    static void turn(Ring& r, Vec2 c, double radius, double from, double sweep) {
        const int n = chords(radius, sweep);
        for (int i = 0; i <= n; ++i) {
            const double a = from + sweep * i / n;
            r.push_back(c + Vec2{std::cos(a), std::sin(a)} * radius);
        }
    }

    /// A spline given by its control points alone: evenly spaced knots, held at both ends, or once round where it is closed.
    void give_knots() {
        if (closed_)
            for (std::size_t i = 0; i < degree_; ++i) control_.push_back(control_[i]);
        const std::size_t n = control_.size();
        for (std::size_t i = 0; i <= n + degree_; ++i)
            knots_.push_back(closed_ ? static_cast<double>(i)
                                     : static_cast<double>(std::clamp(i, degree_, n)) - static_cast<double>(degree_));
    }

    Vec2 de_boor(double t) const {
        // The stretch of knots that t lies in, between those that count.
        const auto first = knots_.begin() + static_cast<std::ptrdiff_t>(degree_) + 1;
        const auto last = knots_.begin() + static_cast<std::ptrdiff_t>(control_.size());
        const std::size_t k = degree_ + static_cast<std::size_t>(std::upper_bound(first, last, t) - first);
        Ring d(control_.begin() + static_cast<std::ptrdiff_t>(k - degree_), control_.begin() + static_cast<std::ptrdiff_t>(k) + 1);
        for (std::size_t r = 1; r <= degree_; ++r)
            for (std::size_t j = degree_; j >= r; --j) {
                const double low = knots_[j + k - degree_];
                const double high = knots_[j + 1 + k - r];
                const double a = high > low ? (t - low) / (high - low) : 0;
                d[j] = d[j - 1] * (1 - a) + d[j] * a;
            }
        return d[degree_];
    }

    const Work& work_;
    bool in_polyline_ = false, in_spline_ = false, closed_ = false;
    std::size_t degree_ = 3;
    std::size_t points_ = 0;
    std::vector<Vertex> vertices_;
    Ring control_, fit_;
    std::vector<double> knots_;
};

}  // namespace

namespace {

/// Counts that the text promises, held against how many lines it has, before the reader asks memory for them.
void check_promises(const std::string& bytes) {
    struct Promise {
        std::string_view entity;
        int code;
        const char* of;
    };
    static constexpr Promise promises[] = {
        {"SPLINE", 72, "knots"},         {"SPLINE", 73, "control points"}, {"SPLINE", 74, "fit points"}, {"LWPOLYLINE", 90, "vertices"},
        {"LEADER", 76, "vertices"},      {"HATCH", 91, "loops"},           {"HATCH", 93, "edges"},       {"HATCH", 95, "knots"},
        {"HATCH", 96, "control points"}, {"HATCH", 97, "fit points"}};
    const auto lines = static_cast<long long>(std::count(bytes.begin(), bytes.end(), '\n')) + 1;
    std::string_view rest = bytes;
    const auto next = [&] {
        const auto end = rest.find('\n');
        std::string_view line = rest.substr(0, end);
        rest.remove_prefix(end == std::string_view::npos ? rest.size() : end + 1);
        while (!line.empty() && (line.front() == ' ' || line.front() == '\t')) line.remove_prefix(1);
        while (!line.empty() && (line.back() == '\r' || line.back() == ' ')) line.remove_suffix(1);
        return line;
    };
    const auto number = [](std::string_view s) {
        double v = 0;
        const auto [end, error] = std::from_chars(s.data(), s.data() + s.size(), v);
        return error == std::errc::result_out_of_range ? 1e300 : error == std::errc() ? v : 0.0;
    };
    std::string_view entity;
    for (long long line = 1; !rest.empty(); line += 2) {
        const double code = number(next());
        const std::string_view value = next();
        if (code == 0) entity = value;
        const auto fail = [&](const std::string& what) { throw FormatError(fmt::format("DXF: line {}: {}", line + 1, what)); };
        if (entity == "SPLINE" && code == 71) {
            if (const double degree = number(value); degree < 1 || degree > most_spline_degree)
                fail(fmt::format("a spline of degree {}; 1 to {} are read. Draw it as lines and try again", value, most_spline_degree));
        }
        for (const Promise& p : promises)
            if (p.entity == entity && p.code == code)
                if (const double n = number(value); n < 0 || n > static_cast<double>(lines))
                    fail(fmt::format("{} {} are promised, more than the file has lines. It is cut short or damaged", value, p.of));
    }
}

/// The library's line buffer has 1024 places, and it never comes back from a line that is longer. What is so long is text, of which nothing
/// is wanted: it is cut. A number never is. @throws FormatError with the line.
std::string with_short_lines(const std::string& bytes, const Work& work) {
    constexpr std::size_t longest = 1000;
    std::string out;
    out.reserve(bytes.size());
    std::string_view rest = bytes;
    int code = 0;
    for (std::size_t line = 1; !rest.empty(); ++line) {
        if (line % 65536 == 0) work.check();
        const auto end = rest.find('\n');
        const std::string_view text = rest.substr(0, end);
        rest.remove_prefix(end == std::string_view::npos ? rest.size() : end + 1);
        if (line % 2 == 1) {
            const auto first = text.find_first_not_of(" \t");
            const std::string_view digits = first == std::string_view::npos ? std::string_view() : text.substr(first);
            code = 0;
            std::from_chars(digits.data(), digits.data() + digits.size(), code);
        }
        // Group codes of text, as the open reference has them; the rest are numbers.
        const bool is_text = (code >= 0 && code <= 9) || (code >= 100 && code <= 105) || (code >= 300 && code <= 369) ||
                             (code >= 390 && code <= 399) || (code >= 410 && code <= 419) || (code >= 430 && code <= 439) ||
                             (code >= 470 && code <= 481) || code >= 999;
        if (text.size() > longest && (line % 2 == 1 || !is_text))
            throw FormatError(
                fmt::format("DXF: line {} has {} characters where a number is wanted; the file is damaged", line, text.size()));
        out += text.substr(0, longest);
        out += '\n';
    }
    return out;
}

/// The reader of DXF goes by the process's C++ locale: while it reads that is the plain one, whatever somebody set.
class PlainNumbers {
  public:
    PlainNumbers() : lock_(one_at_a_time()) {
        if (before_ != std::locale::classic()) std::locale::global(std::locale::classic());
    }
    ~PlainNumbers() {
        if (before_ != std::locale::classic()) std::locale::global(before_);
    }
    PlainNumbers(const PlainNumbers&) = delete;
    PlainNumbers& operator=(const PlainNumbers&) = delete;

  private:
    static std::mutex& one_at_a_time() {
        static std::mutex m;
        return m;
    }
    std::lock_guard<std::mutex> lock_;
    std::locale before_;
};

}  // namespace

Drawing read_dxf(const std::string& bytes, const Work& work) {
    if (bytes.find("SECTION") == std::string::npos) throw FormatError("this is no DXF drawing");
    if (bytes.rfind("AutoCAD Binary DXF", 0) == 0) throw FormatError("DXF: this one is binary; save it as text");
    if (bytes.find('\0') != std::string::npos) throw FormatError("DXF: there are bytes in it that no text has; it is damaged");
    check_promises(bytes);
    Collector c(work);
    DL_Dxf dxf;
    const PlainNumbers plain;
    std::stringstream in(with_short_lines(bytes, work));
    if (!dxf.in(in, &c)) throw FormatError("DXF: it can't be read");
    c.finish();
    if (bytes.find("EOF") == std::string::npos) throw FormatError("DXF: its end is missing; the file is cut short");
    check_places(c.drawing, "DXF");
    return c.drawing;
}

std::string to_dxf(const std::vector<DrawnPath>& paths) {
    // The writer knows only files by their names: this one lies in memory.
    const int file = memfd_create("drawing.dxf", MFD_CLOEXEC);
    if (file < 0) throw Told("the drawing can't be made: no memory file");
    DL_Dxf dxf;
    // R12 as the open reference has it; every reader takes it.
    const std::unique_ptr<DL_WriterA> out(dxf.out(fmt::format("/proc/self/fd/{}", file).c_str(), DL_VERSION_R12));
    if (!out) {
        close(file);
        throw Told("the drawing can't be made: no memory file");
    }
    dxf.writeHeader(*out);
    out->dxfString(9, "$INSUNITS");
    out->dxfInt(70, 4);
    out->dxfString(9, "$MEASUREMENT");
    out->dxfInt(70, 1);
    out->sectionEnd();
    out->sectionEntities();
    for (const DrawnPath& p : paths) {
        if (p.points.size() < 2) continue;
        std::string layer = p.layer.empty() ? "0" : p.layer;
        std::replace(layer.begin(), layer.end(), ' ', '_');
        const DL_Attributes look(layer, 256, -1, "BYLAYER", 1);
        dxf.writePolyline(*out, DL_PolylineData(static_cast<int>(p.points.size()), 0, 0, p.closed ? 1 : 0), look);
        for (const Vec2 q : p.points) dxf.writeVertex(*out, DL_VertexData(q.x, q.y));
        dxf.writePolylineEnd(*out);
    }
    out->sectionEnd();
    out->dxfEOF();
    out->close();
    std::string bytes;
    std::array<char, 65536> part;
    for (off_t at = 0;;) {
        const ssize_t n = pread(file, part.data(), part.size(), at);
        if (n <= 0) break;
        bytes.append(part.data(), static_cast<std::size_t>(n));
        at += n;
    }
    close(file);
    return bytes;
}

}  // namespace yb
