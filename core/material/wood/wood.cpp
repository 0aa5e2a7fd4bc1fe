#include "core/material/wood/wood.h"

#include "core/ground/fields/fields.h"
#include "core/ground/file/csv.h"

#include <algorithm>
#include <cmath>
#include <stdexcept>
#include <utility>

namespace yb {

extern const char* const species_csv;  // made from core/material/wood/species.csv by the build

namespace {

std::vector<Species> read_table(std::string_view text) {
    std::vector<Species> out;
    CsvRows rows(text);
    rows.next();  // its header
    while (rows.next()) {
        const auto& f = rows.cells();
        if (f.size() < 8) throw std::logic_error("species.csv: a line has too few fields");
        const auto number = [&](std::size_t i) { return number_of_cell(f[i], rows.separator()); };
        out.push_back({std::string(f[0]), std::string(f[1]), number(2), number(3), number(5), number(6), std::string(f[7])});
    }
    return out;
}

}  // namespace

const std::vector<Species>& all_species() {
    static const std::vector<Species> table = read_table(species_csv);
    return table;
}

const Species* find_species(std::string_view name) {
    const auto& all = all_species();
    const auto it = std::find_if(all.begin(), all.end(), [&](const Species& s) { return s.name == name; });
    return it == all.end() ? nullptr : &*it;
}

double equilibrium_moisture(double t, double rh_pct) {
    if (!(rh_pct >= 0 && rh_pct <= 100)) throw std::invalid_argument("relative humidity must be 0 to 100 %");
    if (!(t >= -40 && t <= 100)) throw std::invalid_argument("temperature must be -40 to 100 °C");
    const double h = rh_pct / 100;
    const double w = 349 + 1.29 * t + 0.0135 * t * t;
    const double k = 0.805 + 0.000736 * t - 0.00000273 * t * t;
    const double k1 = 6.27 - 0.00938 * t - 0.000303 * t * t;
    const double k2 = 1.91 + 0.0407 * t - 0.000293 * t * t;
    const double kh = k * h;
    return 1800 / w * (kh / (1 - kh) + (k1 * kh + 2 * k1 * k2 * kh * kh) / (1 + k1 * kh + k1 * k2 * kh * kh));
}

double meter_moisture(double shows, double c, double a, double b) {
    if (!std::isfinite(shows + c + a + b) || std::abs(a) < 1e-6 || c < -40 || c > 100)
        throw std::invalid_argument("a meter's reading, the wood's temperature and its species' slope must be numbers");
    return ((shows + 0.567 - 0.0260 * c + 0.000051 * c * c) / (0.881 * std::pow(1.0056, c)) - b) / a;
}

double movement(double width_mm, double shrinkage_pct, double from_mc, double to_mc) {
    if (!(shrinkage_pct > 0)) throw std::invalid_argument("shrinkage must be above 0 %");
    if (!(from_mc >= 0 && from_mc <= 30 && to_mc >= 0 && to_mc <= 30))
        throw std::invalid_argument("moisture must be 0 to 30 %: above that wood no longer moves");
    return width_mm * (to_mc - from_mc) / (3000 / shrinkage_pct - 30 + from_mc);
}

double shrinkage_across(const Species& s, std::optional<double> pith_mm, double y0, double y1, Sawn sawn) {
    const double st = s.shrink_tangential_pct.value_or(0);
    const double sr = s.shrink_radial_pct.value_or(st);
    if (!pith_mm) return sawn == Sawn::flat ? st : sawn == Sawn::quarter ? sr : (st + sr) / 2;
    const double h = std::max(std::abs(*pith_mm), 1e-6);
    const auto integral = [&](double y) { return sr * y + (st - sr) * h * std::atan(y / h); };
    if (std::abs(y1 - y0) < 1e-9) return sr + (st - sr) * h * h / (h * h + y0 * y0);
    return (integral(y1) - integral(y0)) / (y1 - y0);
}

double density(double g, double mc_pct) { return 1000 * g * (1 + mc_pct / 100); }

const std::vector<Climate>& generic_climates() {
    static const std::vector<Climate> all{
        Climate("heated house, cold winters",
                {{{20, 28}, {20, 29}, {20, 33}, {20, 38}, {21, 46}, {22, 54}, {23, 57}, {23, 57}, {21, 52}, {20, 44}, {20, 36}, {20, 30}}}),
        Climate("house by the water, mild winters",
                {{{19, 48}, {19, 48}, {19, 50}, {19, 52}, {20, 56}, {20, 60}, {21, 63}, {21, 64}, {20, 61}, {19, 57}, {19, 52}, {19, 49}}}),
        Climate("public room, heated and aired",
                {{{21, 30}, {21, 31}, {21, 35}, {21, 40}, {22, 46}, {23, 52}, {24, 55}, {24, 55}, {22, 51}, {21, 45}, {21, 37}, {21, 32}}}),
        Climate("dry country, cooled summers",
                {{{20, 26}, {20, 25}, {21, 23}, {22, 21}, {24, 22}, {25, 26}, {25, 34}, {25, 36}, {24, 31}, {22, 26}, {21, 26}, {20, 27}}}),
        Climate("covered porch, unheated",
                {{{1, 84}, {2, 80}, {5, 75}, {9, 70}, {14, 70}, {17, 72}, {19, 74}, {19, 76}, {15, 80}, {10, 84}, {5, 86}, {2, 86}}}),
        Climate(
            "workshop, stove in winter",
            {{{14, 58}, {14, 57}, {15, 57}, {16, 58}, {18, 61}, {20, 64}, {21, 66}, {21, 67}, {19, 66}, {17, 64}, {15, 62}, {14, 60}}})};
    return all;
}

double settles_at(const Climate& climate) {
    double sum = 0;
    for (const Month& m : climate.months) sum += equilibrium_moisture(m.temp_c, m.rh_pct) / 12;
    return sum;
}

void fields(FieldVisitor& v, Month& m) {
    v.number({"temp_c", "Air", Kind::temperature, {-40, 60}, true}, m.temp_c);
    v.number({"rh_pct", "Humidity", Kind::percent, {0, 100}, true}, m.rh_pct);
}

void fields(FieldVisitor& v, Climate& c) {
    v.text({"name", "Name"}, c.name);
    std::vector<Month> months(c.months.begin(), c.months.end());
    v.list({"months", "Months, January first", true}, months);
    if (months.size() != c.months.size()) return v.wrong("months", "twelve months are wanted");
    std::copy(months.begin(), months.end(), c.months.begin());
}

MoistureRange moisture_range(const Climate& climate) {
    MoistureRange r{1e9, -1e9, 0, 0};
    for (int m = 0; m < 12; ++m) {
        const Month& air = climate.months[static_cast<std::size_t>(m)];
        const double mc = equilibrium_moisture(air.temp_c, air.rh_pct);
        if (mc < r.low_pct) r.low_pct = mc, r.low_month = m;
        if (mc > r.high_pct) r.high_pct = mc, r.high_month = m;
    }
    return r;
}

const char* month_name(int month) {
    static constexpr std::array names{"January", "February", "March",     "April",   "May",      "June",
                                      "July",    "August",   "September", "October", "November", "December"};
    return names.at(static_cast<std::size_t>(month));
}

}  // namespace yb
