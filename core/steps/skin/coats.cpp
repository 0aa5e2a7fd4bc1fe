#include "core/steps/skin/coats.h"

#include <algorithm>
#include <cmath>
#include <stdexcept>

namespace yb {

const FinishClass& class_of(Finish finish) {
    // A maker's starting values and what labels of such classes commonly say; change them by your own label.
    static const std::array<FinishClass, finishes.values.size()> all{{
        {35, 15, 2, 3, 1, 5, 15, 2.5, 4, 36, 0, 36, 168, 12, 28, true, false, true, false, 0, 12, 12},
        {35, 15, 2, 3, 1, 5, 15, 2.5, 4, 36, 0, 36, 168, 12, 28, true, false, true, false, 0, 12, 12},
        {55, 30, 3, 1, 0, 20, 45, 2.5, 4, 24, 0, 48, 720, 10, 30, true, false, true, false, 0, 20, 6},
        {40, 30, 4, 1, 0, 0, 12, 3, 0, 12, 48, 24, 504, 12, 28, false, true, true, false, 400, 0, 0},
        {90, 90, 3, 1, 0, 0, 12, 6, 0, 8, 36, 48, 168, 12, 28, false, true, false, false, 400, 0, 0},
        {160, 160, 3, 10, 1, 0, 20, 2, 0, 2, 24, 24, 168, 15, 28, false, true, false, false, 400, 0, 0},
        {1600, 1600, 2, 2, 1, 0, 30, 5, 0, 4, 24, 72, 168, 18, 28, false, true, false, true, 0, 0, 0},
        {35, 90, 3, 3, 1, 5, 15, 2.5, 4, 72, 0, 72, 336, 15, 28, true, true, true, false, 400, 0, 0},
        {80, 60, 3, 1, 0, 3, 15, 2, 2, 6, 0, 12, 72, 10, 30, true, false, false, false, 0, 60, 3},
        {60, 60, 4, 1, 0, 0, 5, 4, 0, 2, 0, 12, 72, 12, 28, false, true, false, false, 400, 0, 0},
    }};
    return all.at(finishes.index(finish));
}

std::array<FinishClass, finishes.values.size()> FinishShelf::starting() {
    std::array<FinishClass, finishes.values.size()> out;
    for (const Finish f : finishes.values) out.at(finishes.index(f)) = class_of(f);
    return out;
}

void fields(FieldVisitor& v, FinishClass& c) {
    constexpr Range ml{0, 5000};
    constexpr Range minutes{0, 1440};
    constexpr Range hour{0, 5000};
    v.number({"first_ml_m2", "First coat, mL a m²", Kind::number, ml, true}, c.first_ml_m2);
    v.number({"more_ml_m2", "Each after it, mL a m²", Kind::number, ml, true}, c.more_ml_m2);
    v.number({"coats", "Coats", Kind::count, {1, 12}, true}, c.coats);
    v.number({"parts_a", "Parts A, by volume", Kind::number, {0.01, 1000}, true}, c.parts_a);
    v.number({"parts_b", "Parts B, by volume", Kind::number, {0, 1000}, true}, c.parts_b);
    v.number({"soak_min", "Left to soak, minutes", Kind::number, minutes, true}, c.soak_min);
    v.number({"window_min", "To be wiped or wet within, minutes", Kind::number, minutes, true}, c.window_min);
    v.number({"on_min_m2", "Put on, minutes a m²", Kind::number, {0.05, 600}, true}, c.on_min_m2);
    v.number({"off_min_m2", "Wiped off, minutes a m²", Kind::number, {0, 600}, true}, c.off_min_m2);
    v.number({"recoat_h", "Next coat, from", Kind::hours, hour, true}, c.recoat_h);
    v.number({"recoat_to_h", "… unsanded until; 0: any time", Kind::hours, hour, true}, c.recoat_to_h);
    v.number({"handle_h", "Can be handled after", Kind::hours, hour, true}, c.handle_h);
    v.number({"cure_h", "Cured after", Kind::hours, hour, true}, c.cure_h);
    v.number({"low_c", "Air, from", Kind::temperature, {-10, 60}, true}, c.low_c);
    v.number({"high_c", "Air, to", Kind::temperature, {-10, 60}, true}, c.high_c);
    v.number({"maintain_ml_m2", "Oiled again with, mL a m²", Kind::number, ml, true}, c.maintain_ml_m2);
    v.number({"maintain_months", "… every so many months", Kind::number, {0, 600}, true}, c.maintain_months);
    v.number({"price_l", "Price of a litre", Kind::number, {0, 10000}}, c.price_l);
    v.number({"left_l", "On the shelf", Kind::volume, {0, 10000}}, c.left_l);
}

void fields(FieldVisitor& v, FinishShelf& s) {
    for (std::size_t i = 0; i < s.labels.size(); ++i) v.object({finishes.options[i].key, finishes.options[i].label}, s.labels[i]);
}

double stretched(double air_c) { return std::clamp(std::pow(2.0, (20 - air_c) / 10), 0.25, 8.0); }

double zone_m2(double s, double w, double p, double q) {
    if (!(p > 0) || q < 0) throw std::invalid_argument("what is put on takes some minutes a square metre");
    if (!(w > 0)) return 0;
    if (q == 0) return w / p;
    if (w <= s) return 0;
    const double soaking = (w - s) / q;
    return p * soaking <= s ? soaking : w / (p + q);
}

namespace {
Box box_of(const std::vector<Ring>& face) {
    Box box{{1e300, 1e300}, {-1e300, -1e300}};
    for (const Ring& r : face) {
        const Box b = bounds(r);
        box.low = {std::min(box.low.x, b.low.x), std::min(box.low.y, b.low.y)};
        box.high = {std::max(box.high.x, b.high.x), std::max(box.high.y, b.high.y)};
    }
    return box;
}

Ring stretch(const Box& box, double from, double to) {
    return {{from, box.low.y - 1}, {to, box.low.y - 1}, {to, box.high.y + 1}, {from, box.high.y + 1}};
}
}  // namespace

std::vector<ZonePiece> zones_at(const std::vector<Ring>& face, const std::vector<double>& seams) {
    std::vector<ZonePiece> out;
    const Box box = box_of(face);
    if (!(box.high.x > box.low.x)) return out;
    std::vector<double> at{box.low.x - 1};
    for (const double u : seams)
        if (u > box.low.x && u < box.high.x) at.push_back(u);
    at.push_back(box.high.x + 1);
    std::sort(at.begin(), at.end());
    int order = 0;
    for (std::size_t k = 1; k < at.size(); ++k) {
        if (at[k] - at[k - 1] < 1e-6) continue;
        ++order;
        for (const Ring& r : face)
            for (Ring& part : intersection(r, stretch(box, at[k - 1], at[k]))) out.push_back({order, std::move(part)});
    }
    return out;
}

std::vector<ZonePiece> zones_of(const std::vector<Ring>& face, double m2, double most) {
    double whole = 0;
    for (const Ring& r : face) whole += area(r) * 1e-6;
    if (!(whole > 0) || !(m2 > 0)) return {};
    constexpr int too_many = 400;
    const int n = most > 0 ? std::clamp(static_cast<int>(std::ceil(m2 / most - 1e-9)), 1, too_many) : 1;
    if (n == 1) {
        std::vector<ZonePiece> out;
        for (const Ring& r : face) out.push_back({1, r});
        return out;
    }
    // Lines across, so that each stretch has the same share: areas left of a line rise with it.
    const Box box = box_of(face);
    const auto left_of = [&](double u) {
        double sum = 0;
        for (const Ring& r : face) sum += intersection_area(r, stretch(box, box.low.x - 1, u));
        return sum * 1e-6;
    };
    std::vector<double> seams;
    for (int k = 1; k < n; ++k) {
        double low = seams.empty() ? box.low.x - 1 : seams.back();
        double high = box.high.x;
        for (int i = 0; i < 40 && high - low > 0.01; ++i) {
            const double mid = (low + high) / 2;
            (left_of(mid) < whole * k / n ? low : high) = mid;
        }
        seams.push_back((low + high) / 2);
    }
    return zones_at(face, seams);
}

}  // namespace yb
