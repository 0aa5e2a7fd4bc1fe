#include "core/steps/skin/grits.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <stdexcept>
#include <string>

namespace yb {

namespace {
struct Size {
    double grit, um;
};
// FEPA 43 (ISO 6344): mean of each P grit; 36 and those above 400 by the same standard.
constexpr std::array sizes{Size{36, 538},   Size{40, 425},   Size{60, 269},    Size{80, 201},    Size{100, 162},  Size{120, 125},
                           Size{150, 100},  Size{180, 82},   Size{220, 68},    Size{240, 58.5},  Size{320, 46.2}, Size{400, 35},
                           Size{600, 25.8}, Size{800, 21.8}, Size{1000, 18.3}, Size{1500, 12.6}, Size{2000, 10.3}};
}  // namespace

double grit_um(double grit) {
    if (!(grit >= sizes.front().grit && grit <= sizes.back().grit))
        throw std::invalid_argument("grits from 36 to 2000 are known, not " + std::to_string(grit));
    const auto it = std::lower_bound(sizes.begin(), sizes.end(), grit, [](const Size& s, double g) { return s.grit < g; });
    if (it->grit == grit || it == sizes.begin()) return it->um;
    const Size& b = *it;
    const Size& a = *(it - 1);
    const double t = std::log(grit / a.grit) / std::log(b.grit / a.grit);
    return a.um * std::pow(b.um / a.um, t);
}

const std::vector<int>& grits_sold() {
    static const std::vector<int> all{40, 60, 80, 100, 120, 150, 180, 220, 240, 320, 400, 600, 800, 1000, 1500, 2000};
    return all;
}

std::vector<double> ladder(double first, double last) {
    (void)grit_um(first), (void)grit_um(last);
    if (first >= last) return {last};
    std::vector<double> out{first};
    while (out.back() < last) {
        const double from = grit_um(out.back());
        if (from / grit_um(last) <= widest_step + 1e-9) {
            out.push_back(last);
            break;
        }
        double next = 0;
        for (const int g : grits_sold())
            if (g > out.back() && g < last && from / grit_um(g) <= widest_step + 1e-9) next = g;
        if (next == 0)  // nothing sold lies so near: the nearest that is
            for (const int g : grits_sold())
                if (g > out.back()) {
                    next = std::min<double>(g, last);
                    break;
                }
        out.push_back(next == 0 ? last : next);
    }
    return out;
}

bool steps_hold(const std::vector<double>& grits, std::size_t* at) {
    for (std::size_t i = 1; i < grits.size(); ++i)
        if (grit_um(grits[i - 1]) / grit_um(grits[i]) > widest_step + 1e-9) {
            if (at) *at = i;
            return false;
        }
    return true;
}

int wood_stops_at(Finish finish, bool figured) {
    switch (finish) {
        case Finish::hardwax:
        case Finish::tinted:
        case Finish::oil_hardcoat: return figured ? 150 : 120;
        case Finish::drying_oil:
        case Finish::soap: return figured ? 180 : 150;
        case Finish::flood: return figured ? 150 : 120;
        case Finish::wiping:
        case Finish::brushed:
        case Finish::sprayed: return figured ? 220 : 180;
        case Finish::shellac: return figured ? 240 : 220;
    }
    return 150;
}

int resin_stops_at(Finish finish) {
    switch (finish) {
        case Finish::flood: return 120;  // it flows over the scratches
        case Finish::wiping:
        case Finish::brushed:
        case Finish::sprayed:
        case Finish::shellac: return 240;
        default: return 400;
    }
}

int begins_at(double sled_step_mm, bool planed) {
    if (planed) return 80;
    return sled_step_mm > 0.1 ? 40 : 60;
}

void fields(FieldVisitor& v, Sanding& s) {
    constexpr Range pace{0.5, 600};
    v.number({"felt_min_m2", "First grit on lanes, minutes a m²", Kind::number, pace}, s.felt_min_m2);
    v.number({"planed_min_m2", "… on a planed face", Kind::number, pace}, s.planed_min_m2);
    v.number({"after_min_m2", "Each grit after, minutes a m²", Kind::number, pace}, s.after_min_m2);
    v.number({"resin_times", "Resin takes, times that", Kind::number, {0.1, 20}}, s.resin_times);
    v.number({"edge_min_m", "Edges by hand, minutes a m and grit", Kind::number, pace}, s.edge_min_m);
    v.number({"disc_m2", "A disc lasts, m²", Kind::number, {0.01, 100}}, s.disc_m2);
    v.flag({"disc_sander", "Coarse grits by a disc sander"}, s.disc_sander);
    v.number({"disc_times", "… in its share of the time", Kind::number, {0.05, 2}}, s.disc_times);
    v.number({"disc_price", "Price of a disc", Kind::number, {0, 1000}}, s.disc_price);
}

}  // namespace yb
