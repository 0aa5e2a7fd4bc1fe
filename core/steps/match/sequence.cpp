#include "core/steps/match/sequence.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <stdexcept>
#include <unordered_map>

#include "core/steps/match/faces.h"

namespace yb {

namespace {

constexpr std::size_t exact_to = 12;    ///< slabs
constexpr std::size_t followed = 4000;  ///< part-orders of a length, above that
constexpr std::size_t doubted = 100;    ///< the same while a joint's sureness is asked for
constexpr double height_trust_mm = 14;  ///< how far off two neighbours' heights in the log may tell
constexpr double height_most = 14;      ///< what it may cost: logs are no cylinders
constexpr double no_joint = 11;         ///< a joint that costs more, and so much more
constexpr double dearer_than = 8;       ///< than the middle one of the order, parted nothing
constexpr double never = 1e6;

/// One slab in its place.
struct Put {
    std::size_t item = 0;
    int turn = 0;  ///< bit 0 turned over, bit 1 end for end
};

class Solver {
  public:
    Solver(const std::vector<SequenceItem>& items, const Work& work, double kerf_mm)
        : items_(items), work_(work), kerf_(kerf_mm), n_(items.size()) {}

    Sequence run() {
        Sequence out;
        if (n_ == 0) return out;
        if (n_ > 60) throw std::invalid_argument("no more than 60 slabs can be put in order at once");
        check_pins();
        views_.resize(n_);
        in_parallel(
            n_,
            [&](std::size_t i) {
                const SequenceItem& s = items_[i];
                views_[i] = view_of(*s.slab, *s.shape, s.face_a, s.face_b, kerf_);
            },
            work_.part(0, 0.2));
        compare_all(work_.part(0.2, 0.85));
        out.exact = n_ <= exact_to;
        auto [path, cost] = cheapest(followed);
        if (path.empty()) throw std::invalid_argument("what is pinned leaves no order: take a pin away");
        out.cost = cost;
        if (!pinned()) canonical(path);
        tell(path, out);
        return out;
    }

  private:
    void check_pins() const {
        std::vector<bool> taken(n_, false);
        for (const SequenceItem& i : items_) {
            if (!i.position) continue;
            if (*i.position < 0 || *i.position >= static_cast<int>(n_))
                throw std::invalid_argument(i.slab->name + " is pinned to a place that there is not");
            if (taken[static_cast<std::size_t>(*i.position)]) throw std::invalid_argument("two slabs are pinned to one place");
            taken[static_cast<std::size_t>(*i.position)] = true;
        }
    }

    // Faces: 2 i is face A of slab i, 2 i + 1 its face B. Two faces that look at each other are the same joint whichever of
    // the two slabs is the lower one.
    struct Pair {
        FaceMatch m;
        double cost = never;  ///< with what the heights in the log say
    };
    std::size_t at(std::size_t f, std::size_t g, bool round) const { return (f * 2 * n_ + g) * 2 + (round ? 1 : 0); }
    static std::size_t upper(const Put& p) { return 2 * p.item + ((p.turn & 1) ? 1 : 0); }
    static std::size_t lower(const Put& p) { return 2 * p.item + ((p.turn & 1) ? 0 : 1); }
    std::size_t joint(const Put& below, const Put& above) const {
        return at(upper(below), lower(above), ((below.turn ^ above.turn) & 2) != 0);
    }

    /// What it costs that slab i lies with its face f up under slab j with its face g down.
    double heights(std::size_t f, std::size_t g) const {
        const SlabView& below = views_[f / 2];
        const SlabView& above = views_[g / 2];
        const double low = f % 2 == 1 ? -below.height_mm : below.height_mm;
        const double high = g % 2 == 0 ? -above.height_mm : above.height_mm;
        // What edges are off by, heights are off by more: h = (w_b² − w_a²)/(8 t).
        const double read = trust_.edge_mm * (below.width_mm / below.thickness_mm + above.width_mm / above.thickness_mm) / 8;
        const double off = (high - low - (below.thickness_mm + above.thickness_mm) / 2 - kerf_) / std::hypot(height_trust_mm, read);
        return std::min(height_most, 1.5 * std::log1p(off * off / 2));
    }

    void compare_all(const Work& work) {
        pairs_.assign(2 * n_ * 2 * n_ * 2, {});
        std::vector<std::pair<std::size_t, std::size_t>> all;
        for (std::size_t f = 0; f < 2 * n_; ++f)
            for (std::size_t g = f + 1; g < 2 * n_; ++g)
                if (f / 2 != g / 2) all.emplace_back(f, g);
        const auto compare = [&](const Work& part, bool pictures) {
            in_parallel(
                all.size(),
                [&](std::size_t k) {
                    const auto [f, g] = all[k];
                    // Seen from above face A: both look at each other when one of them is mirrored or both are alike.
                    const bool mirrored = (f % 2 == 1) != (g % 2 == 0);
                    for (const bool round : {false, true}) {
                        Pair p;
                        p.m = lay_on(views_[f / 2], static_cast<int>(f % 2), views_[g / 2], static_cast<int>(g % 2), mirrored, round,
                                     trust_, pictures);
                        p.cost = p.m.cost + heights(f, g);
                        pairs_[at(f, g, round)] = p;
                        if (!round) p.m.shift_mm = -p.m.shift_mm;
                        pairs_[at(g, f, round)] = p;
                    }
                },
                part);
        };
        // How well edges were read shows in how well each face's best mate fits.
        compare(work.part(0, 0.3), false);
        std::vector<double> best;
        for (std::size_t f = 0; f < 2 * n_; ++f) {
            const Pair* least = nullptr;
            for (std::size_t g = 0; g < 2 * n_; ++g)
                for (const bool round : {false, true})
                    if (const Pair& p = pairs_[at(f, g, round)]; p.cost < never && (!least || p.cost < least->cost)) least = &p;
            if (least) best.push_back(least->m.misfit_mm);
        }
        if (!best.empty()) {
            const auto middle = best.begin() + static_cast<std::ptrdiff_t>(best.size() / 2);
            std::nth_element(best.begin(), middle, best.end());
            trust_.edge_mm = std::clamp(*middle, 0.8, 8.0);
        }
        compare(work.part(0.3, 1), true);
    }

    bool allowed(const Put& p, std::size_t place) const {
        const SequenceItem& i = items_[p.item];
        if (i.position && *i.position != static_cast<int>(place)) return false;
        if (i.over && *i.over != ((p.turn & 1) != 0)) return false;
        if (i.ended && *i.ended != ((p.turn & 2) != 0)) return false;
        return true;
    }

    struct State {
        std::uint64_t mask = 0;
        Put last;
        double cost = 0;
        std::size_t from = 0;  ///< index in the level before
    };

    /// The likeliest order, from the lowest up, and what it costs. Empty where pins leave none.
    /// @param most part-orders of a length that are followed, above what is exact.
    std::pair<std::vector<Put>, double> cheapest(std::size_t most) const {
        std::vector<std::vector<State>> levels(n_);
        for (std::size_t i = 0; i < n_; ++i)
            for (int turn = 0; turn < 4; ++turn)
                if (allowed({i, turn}, 0)) levels[0].push_back({std::uint64_t{1} << i, {i, turn}, 0, 0});
        const bool exact = n_ <= exact_to;
        std::vector<std::uint32_t> dense(exact ? (std::size_t{1} << n_) * n_ * 4 : 0, 0);  // index + 1 in the level
        for (std::size_t place = 1; place < n_; ++place) {
            work_.check();
            std::unordered_map<std::uint64_t, std::uint32_t> sparse;
            auto& now = levels[place];
            const auto& before = levels[place - 1];
            for (std::size_t s = 0; s < before.size(); ++s)
                for (std::size_t i = 0; i < n_; ++i) {
                    if (before[s].mask >> i & 1) continue;
                    for (int turn = 0; turn < 4; ++turn) {
                        const Put put{i, turn};
                        if (!allowed(put, place)) continue;
                        const State next{before[s].mask | std::uint64_t{1} << i, put,
                                         before[s].cost + pairs_[joint(before[s].last, put)].cost, s};
                        const std::uint64_t last = i * 4 + static_cast<std::uint64_t>(turn);
                        // Up to 60 slabs: mask and last slab with its turn in one key, a level at a time.
                        std::uint32_t& slot = exact ? dense[next.mask * n_ * 4 + last]
                                                    : sparse[next.mask * 0x9E3779B97F4A7C15ULL ^ last * 0xC2B2AE3D27D4EB4FULL];
                        if (slot == 0) now.push_back(next), slot = static_cast<std::uint32_t>(now.size());
                        else if (next.cost < now[slot - 1].cost) now[slot - 1] = next;
                    }
                }
            if (now.empty()) return {};
            if (!exact && now.size() > most) {
                std::nth_element(now.begin(), now.begin() + static_cast<std::ptrdiff_t>(most), now.end(),
                                 [](const State& a, const State& b) { return a.cost < b.cost; });
                now.resize(most);
            }
        }
        if (levels.back().empty()) return {};
        const auto best =
            std::min_element(levels.back().begin(), levels.back().end(), [](const State& a, const State& b) { return a.cost < b.cost; });
        std::vector<Put> path{best->last};
        std::size_t from = best->from;
        for (std::size_t place = n_ - 1; place > 0; --place) {
            path.push_back(levels[place - 1][from].last);
            from = levels[place - 1][from].from;
        }
        std::reverse(path.begin(), path.end());
        return {path, best->cost};
    }

    bool pinned() const {
        return std::any_of(items_.begin(), items_.end(), [](const SequenceItem& i) { return i.position || i.over || i.ended; });
    }

    /// The whole log upside down or end for end tells the same: the first slab keeps its own way.
    static void canonical(std::vector<Put>& path) {
        const int turn = std::find_if(path.begin(), path.end(), [](const Put& p) { return p.item == 0; })->turn;
        for (Put& p : path) p.turn ^= turn & 2;
        if (turn & 1) {
            // Upside down about the log's length: the order turns round, every slab is turned over.
            std::reverse(path.begin(), path.end());
            for (Put& p : path) p.turn ^= 1;
        }
    }

    void tell(const std::vector<Put>& path, Sequence& out) {
        // Runs of slabs that the saw can have parted; the longest is the log.
        std::vector<std::size_t> run(n_, 0), members(n_, 0);
        std::vector<double> costs;
        for (std::size_t k = 1; k < n_; ++k) costs.push_back(pairs_[joint(path[k - 1], path[k])].cost);
        std::sort(costs.begin(), costs.end());
        const double most = costs.empty() ? no_joint : std::max(no_joint, costs[(costs.size() - 1) / 2] + dearer_than);
        for (std::size_t k = 0; k < n_; ++k) {
            SequencePlace p{path[k].item, (path[k].turn & 1) != 0, (path[k].turn & 2) != 0};
            if (k > 0) {
                const Pair& m = pairs_[joint(path[k - 1], path[k])];
                p.shift_mm = m.m.shift_mm;
                p.cost = m.cost;
                p.parted = m.cost < most;
                run[k] = run[k - 1] + (p.parted ? 0 : 1);
            }
            ++members[run[k]];
            out.places.push_back(p);
        }
        const auto log = static_cast<std::size_t>(std::max_element(members.begin(), members.end()) - members.begin());
        for (std::size_t k = 0; k < n_; ++k) out.places[k].stranger = n_ > 2 && members[log] > 1 && run[k] != log;
        out.confidence = 1;
        for (std::size_t k = 1; k < n_; ++k) {
            out.places[k].confidence = sure(path[k - 1], path[k], out.cost);
            // Where the log is parted from a stranger it is as sure as the joint there is too dear to be one.
            const bool parted_here = out.places[k].stranger != out.places[k - 1].stranger;
            if (parted_here) out.places[k].confidence = 1 / (1 + std::exp(-(out.places[k].cost - most) / dearer));
            if (parted_here || !out.places[k].stranger) out.confidence = std::min(out.confidence, out.places[k].confidence);
        }
        if (!pinned()) std::stable_partition(out.places.begin(), out.places.end(), [](const SequencePlace& p) { return !p.stranger; });
    }

    /// From how much dearer the best order is that lacks this joint.
    double sure(const Put& below, const Put& above, double cost) {
        const std::size_t u = upper(below);
        const std::size_t l = lower(above);
        const bool round = ((below.turn ^ above.turn) & 2) != 0;
        const Pair kept = pairs_[at(u, l, round)];
        const Pair mate = pairs_[at(l, u, round)];
        pairs_[at(u, l, round)].cost = pairs_[at(l, u, round)].cost = never;
        const auto [path, without] = cheapest(doubted);
        pairs_[at(u, l, round)] = kept, pairs_[at(l, u, round)] = mate;
        if (path.empty()) return 1;
        return 1 / (1 + std::exp(-std::max(0.0, without - cost) / dearer));
    }
    static constexpr double dearer = 2.5;

    const std::vector<SequenceItem>& items_;
    const Work& work_;
    double kerf_;
    std::size_t n_;
    std::vector<SlabView> views_;
    std::vector<Pair> pairs_;
    Trust trust_;
};

}  // namespace

Sequence put_in_order(const std::vector<SequenceItem>& items, const Work& work, double kerf) { return Solver(items, work, kerf).run(); }

}  // namespace yb
