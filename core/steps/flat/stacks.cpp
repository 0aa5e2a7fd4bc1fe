#include "core/steps/flat/stacks.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numeric>

namespace yb {

namespace {

constexpr double per_mm = 20;    // sums are counted in twentieths of a millimetre
constexpr int most_raised = 40;  // of them
constexpr int most_off = 3;      // of them, at one shim
constexpr double may_rock_mm = 0.1;
constexpr double may_lose_mm = 0.1;
constexpr int most_tries = 1500;  // of whole sets of stacks: many supports have many

/// Fewest pieces of the stock for every sum.
struct Sums {
    static constexpr int never = std::numeric_limits<int>::max() / 2;
    std::vector<double> sizes;
    std::vector<int> pieces{0};
    std::vector<std::size_t> last{0};

    /// @param height_mm that the tallest stack is wanted for: sums go on by the thickest piece, and by what a slab may be raised.
    Sums(const std::vector<double>& stock, double height_mm) {
        for (const double s : stock)
            if (s >= 0.05) sizes.push_back(s);
        std::sort(sizes.begin(), sizes.end());
        const double past = std::max(sizes.empty() ? 0 : sizes.back(), (most_raised + most_off + 1) / per_mm);
        const auto n = static_cast<std::size_t>(std::lround((height_mm + past) * per_mm)) + 1;
        pieces.resize(n, never), last.resize(n, 0);
        for (std::size_t sum = 1; sum < n; ++sum)
            for (std::size_t k = 0; k < sizes.size(); ++k)
                if (const std::size_t u = units(k); u <= sum && pieces[sum - u] + 1 < pieces[sum])
                    pieces[sum] = pieces[sum - u] + 1, last[sum] = k;
    }
    std::size_t units(std::size_t k) const { return static_cast<std::size_t>(std::lround(sizes[k] * per_mm)); }
    std::vector<double> stack(std::size_t sum) const {
        std::vector<double> out;
        while (sum > 0) out.push_back(sizes[last[sum]]), sum -= units(last[sum]);
        std::sort(out.rbegin(), out.rend());
        return out;
    }
};

/// The stack whose sum comes nearest.
std::vector<double> nearest(const Sums& sums, double height) {
    if (sums.sizes.empty() || !(height >= sums.sizes.front() / 2) || height > 1000) return {};
    const auto most = static_cast<std::size_t>(std::lround((height + sums.sizes.back()) * per_mm));
    std::size_t best = 0;
    double least = std::numeric_limits<double>::infinity();
    for (std::size_t sum = 0; sum <= most; ++sum) {
        if (sums.pieces[sum] >= Sums::never) continue;
        // Half a tenth nearer is worth a piece more; past six pieces a tenth is.
        const double cost = std::floor(std::abs(static_cast<double>(sum) / per_mm - height) / 0.05 + 1e-6) + 0.01 * sums.pieces[sum] +
                            2.0 * std::max(0, sums.pieces[sum] - 6);
        if (cost < least) least = cost, best = sum;
    }
    return sums.stack(best);
}

/// A sum under one shim.
struct Option {
    std::size_t sum = 0;
    int pieces = 0;
};

double stands(const std::vector<double>& stack) { return std::accumulate(stack.begin(), stack.end(), 0.0); }

/// What could be laid under each shim with the slab raised by so much.
struct Raised {
    int by = 0;  ///< twentieths of a millimetre
    std::vector<std::vector<Option>> options;
    std::vector<int> least;  ///< pieces from one shim on to the last

    Raised(const std::vector<Shim>& wanted, int raised, const Sums& sums) : by(raised), least(wanted.size() + 1, 0) {
        for (const Shim& s : wanted) options.push_back(options_of(s.height_mm + raised / per_mm, sums));
        for (std::size_t i = wanted.size(); i-- > 0;)
            least[i] = least[i + 1] + (options[i].empty() ? Sums::never / 64 : options[i][0].pieces);
    }

  private:
    /// Few pieces first, then the nearest.
    static std::vector<Option> options_of(double height, const Sums& sums) {
        std::vector<Option> out;
        const auto middle = std::lround(height * per_mm);
        for (long sum = std::max(0L, middle - most_off); sum <= middle + most_off && sum < static_cast<long>(sums.pieces.size()); ++sum)
            if (const int n = sums.pieces[static_cast<std::size_t>(sum)]; n < Sums::never)
                out.push_back({static_cast<std::size_t>(sum), n});
        const auto off = [&](const Option& o) { return std::abs(static_cast<double>(o.sum) / per_mm - height); };
        std::sort(out.begin(), out.end(),
                  [&](const Option& a, const Option& b) { return a.pieces != b.pieces ? a.pieces < b.pieces : off(a) < off(b); });
        return out;
    }
};

class Search {
  public:
    Search(const std::vector<Shim>& wanted, const Sums& sums, Vec2 balance, const std::function<double(Turned)>& loses, int below)
        : wanted_(wanted), sums_(sums), balance_(balance), loses_(loses), tried_(wanted), chosen_(wanted.size()), fewest_(below) {}

    /// Looks through one height of the slab for fewer pieces than any before.
    void at(const Raised& raised) {
        for (std::size_t i = 0; i < wanted_.size(); ++i) tried_[i].height_mm = wanted_[i].height_mm + raised.by / per_mm;
        choose(raised, 0, 0);
    }
    const std::vector<Shim>& best() const { return best_; }  ///< empty where none was found
    const Stacking& told() const { return told_; }

  private:
    void choose(const Raised& raised, std::size_t i, int pieces) {
        if (pieces + raised.least[i] >= fewest_ || tries_ >= most_tries) return;
        if (i < wanted_.size()) {
            for (const Option& o : raised.options[i]) {
                chosen_[i] = o;
                tried_[i].stands_mm = static_cast<double>(o.sum) / per_mm;
                choose(raised, i + 1, pieces + o.pieces);
            }
            return;
        }
        ++tries_;
        const Rest rest = rest_on(tried_, balance_);
        if (rest.gap_mm > may_rock_mm + 1e-9) return;
        const double lost = loses_(rest.by);
        if (lost > may_lose_mm + 1e-9) return;
        fewest_ = pieces;
        best_ = tried_;
        for (std::size_t k = 0; k < best_.size(); ++k) best_[k].stack_mm = sums_.stack(chosen_[k].sum);
        told_ = {raised.by / per_mm, rest.gap_mm, lost, pieces, 0};
    }

    const std::vector<Shim>& wanted_;
    const Sums& sums_;
    Vec2 balance_;
    const std::function<double(Turned)>& loses_;
    std::vector<Shim> tried_, best_;
    std::vector<Option> chosen_;
    Stacking told_;
    int fewest_;
    int tries_ = 0;
};

}  // namespace

std::vector<double> stack_for(double height, const std::vector<double>& stock) {
    return nearest(Sums(stock, height > 1000 ? 0 : height), height);
}

Rest rest_on(const std::vector<Shim>& shims, Vec2 balance) {
    Rest best;
    if (shims.size() < 3 || in_one_line(shims)) return best;
    struct Foot {
        Vec2 at;
        double off;  // what it stands higher than the slab wants
    };
    std::vector<Foot> feet;
    for (const Shim& s : shims) feet.push_back({{s.at.x_mm, s.at.y_mm}, s.stands_mm - s.height_mm});
    double least_rise = std::numeric_limits<double>::infinity();
    for (std::size_t i = 0; i < feet.size(); ++i)
        for (std::size_t j = i + 1; j < feet.size(); ++j)
            for (std::size_t k = j + 1; k < feet.size(); ++k) {
                const Vec2 u = feet[j].at - feet[i].at;
                const Vec2 v = feet[k].at - feet[i].at;
                const double det = cross(u, v);
                if (std::abs(det) < 1) continue;
                // The plane over three feet.
                const double du = feet[j].off - feet[i].off;
                const double dv = feet[k].off - feet[i].off;
                const Turned turned{(du * v.y - dv * u.y) / det, (dv * u.x - du * v.x) / det};
                const auto plane = [&](Vec2 p) {
                    const Vec2 d = p - feet[i].at;
                    return feet[i].off + turned.a * d.x + turned.b * d.y;
                };
                double gap = 0;
                bool rests = true;
                for (const Foot& f : feet) {
                    const double under = plane(f.at) - f.off;
                    rests = rests && under > -1e-9;
                    gap = std::max(gap, under);
                }
                // Of the planes that lie on all feet the slab takes the one that is lowest at its balance point.
                if (rests && plane(balance) < least_rise) least_rise = plane(balance), best = {gap, turned};
            }
    return best;
}

Stacking lay_stacks(std::vector<Shim>& shims, const std::vector<double>& stock, Vec2 balance, const std::function<double(Turned)>& loses) {
    Stacking out;
    double tallest = 0;
    for (const Shim& s : shims) tallest = std::max(tallest, s.height_mm);
    const Sums sums(stock, std::min(tallest, 1000.0));
    for (Shim& s : shims) {
        s.stack_mm = nearest(sums, s.height_mm);
        s.stands_mm = stands(s.stack_mm);
        out.alone += static_cast<int>(s.stack_mm.size());
    }
    const Rest rest = rest_on(shims, balance);
    out.pieces = out.alone, out.rocks_mm = rest.gap_mm, out.loses_mm = loses(rest.by);
    if (sums.sizes.empty() || shims.size() < 3 || in_one_line(shims) || tallest > 1000) return out;
    const bool holds = out.rocks_mm <= may_rock_mm + 1e-9 && out.loses_mm <= may_lose_mm + 1e-9;
    const std::vector<Shim> wanted = shims;
    std::vector<Raised> ways;
    for (int by = 0; by <= most_raised; ++by) ways.emplace_back(wanted, by, sums);
    std::stable_sort(ways.begin(), ways.end(), [](const Raised& a, const Raised& b) { return a.least[0] < b.least[0]; });
    Search search(wanted, sums, balance, loses, holds ? out.pieces : Sums::never / 64);
    for (const Raised& way : ways) search.at(way);
    if (search.best().empty()) return out;
    shims = search.best();
    const int alone = out.alone;
    out = search.told();
    out.alone = alone;
    return out;
}

}  // namespace yb
