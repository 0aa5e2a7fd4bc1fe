#include "tests/fuzz/hand.h"

#include <array>
#include <filesystem>
#include <iterator>
#include <stdexcept>
#include <vector>

#include <unistd.h>

#include "core/files/store/check.h"
#include "core/files/store/store.h"
#include "core/ground/fields/walk.h"
#include "core/material/wood/wood.h"
#include "core/shop/edit/edits.h"
#include "core/shop/edit/mends.h"
#include "core/shop/edit/shop_edits.h"
#include "core/shop/edit/slab_edits.h"
#include "core/shop/edit/tape_edits.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/shop/job/steps.h"
#include "core/steps/fill/fill.h"
#include "demo/demo.h"

namespace yb {
namespace {

constexpr std::size_t most_moves = 24;

/// One move of the hand.
struct Move {
    unsigned char edit = 0, of = 0, across = 0, along = 0;

    /// Mostly what a maker would type, now and then what nobody would.
    double value() const {
        constexpr std::array odd{0.0, -1.0, 1e-9, 1e9, 0.5, 1e6, -4000.0, 33.3};
        return along < 240 ? (along - 120) * 5.0 + across / 10.0 : odd[along % odd.size()];
    }
    Vec2 by() const { return {(along - 128) * 4.0, (across - 128) * 2.0}; }
    Ring ring() const {
        const Vec2 at{along * 10.0, (across - 128) * 3.0};
        return {at, at + Vec2{of * 1.0 + 1, 0}, at + Vec2{of * 1.0 + 1, of * 0.5 + 1}, at + Vec2{0, of * 0.5 + 1}};
    }
};

template <class Map>
auto& pick(Map& from, unsigned char which) {
    return std::next(from.begin(), static_cast<std::ptrdiff_t>(which % from.size()))->second;
}

struct Hand {
    Documents docs;
    std::string job;
    Plan plan;

    void set_a_field(Job& j, const Move& m) {
        static const std::vector<FieldLine> all = [] {
            Job defaults;
            return describe(walk_of(defaults));
        }();
        const std::string path = all[(m.of * 256U + m.across) % all.size()].path;
        if (number_at(walk_of(j), path).there) set_number(walk_of(j), path, m.along == 255 ? std::nullopt : std::optional(m.value()));
        else if (const OptionAt o = option_at(walk_of(j), path); o.there) set_option(walk_of(j), path, m.along % o.school.options.size());
    }

    void mend(const Move& m) {
        std::vector<Caution> all;
        for (const StepRow& row : steps())
            if (const StepPlan* says = row.says ? row.says(plan) : nullptr)
                for (const Caution& c : says->cautions) all.push_back(c);
        if (all.empty()) return;
        if (const auto found = mend_of(all[m.of % all.size()], docs, job, plan)) mended(docs, job, *found);
    }

    void slab(const Move& m) {
        if (docs.slabs.empty()) return;
        Slab& s = pick(docs.slabs, m.across);
        constexpr std::array kinds{FlawKind::crack, FlawKind::void_,   FlawKind::pocket, FlawKind::knot,
                                   FlawKind::soft,  FlawKind::insects, FlawKind::pith,   FlawKind::scar};
        const std::optional<double> typed = m.along == 255 ? std::nullopt : std::optional(m.value());
        switch (m.edit % 10) {
            case 0: return type_reading(s, TapeSheet::edges, m.of % 20, m.of % 7, typed, 300);
            case 1: return type_reading(s, TapeSheet::heights_a, m.of % 9, m.of % 5, typed, 300);
            case 2: return type_reading(s, TapeSheet::heights_b, m.of % 9, m.of % 5, typed, 300);
            case 3: return type_reading(s, TapeSheet::flaws, m.of % 5, 2 + m.of % 2, typed, 300);
            case 4: return add_flaw(s, kinds[m.of % kinds.size()], m.ring(), m.along % 2);
            case 5: return to_one(m, s.flaws, [&](auto i) { move_flaw(s, i, m.by()); });
            case 6: return to_one(m, s.flaws, [&](auto i) { drop_flaw(s, i); });
            case 7: return lay_height_grid(s);
            case 8: return static_cast<void>(copy_slab(docs, s.id));
            default: return static_cast<void>(split_slab(docs, s.id, m.value()));
        }
    }

    /// What is done to one thing of a list; nothing where the list has none.
    template <class List, class F>
    static void to_one(const Move& m, List& list, F does) {
        if (!list.empty()) does(m.of % list.size());
    }

    void on_job(Job& j, const Move& m) {
        auto& patches = j.makeup.patches;
        auto& joints = j.makeup.joints;
        auto& ties = j.join.ties;
        auto& plates = j.under.plates;
        auto& channels = j.under.channels;
        const std::vector<VoidPlan> none;
        const auto& voids = plan.fill ? plan.fill->voids : none;
        switch (m.edit % 40) {
            case 0: return move_top(j, m.by());
            case 1: return turn_top(j, m.value() / 10);
            case 2: return to_one(m, j.leaves, [&](auto i) { move_leaf(j, i, m.by()); });
            case 3: return to_one(m, j.leaves, [&](auto i) { turn_leaf(j, i, {0, 0}, m.value() / 10); });
            case 4: return to_one(m, joints, [&](auto i) { move_joint(j, i, m.value() / 10, m.along % 2); });
            case 5: return to_one(m, j.leaves, [&](auto i) { turn_over(j, static_cast<int>(i), m.value()); });
            case 6: return to_one(m, j.leaves, [&](auto i) { end_for_end(j, static_cast<int>(i), m.value()); });
            case 7: return set_free_form(j, m.ring());
            case 8: return add_patch(j, m.ring());
            case 9: return to_one(m, patches, [&](auto i) { move_patch(j, i, m.by()); });
            case 10: return to_one(m, patches, [&](auto i) { turn_patch(j, i, m.value()); });
            case 11: return to_one(m, patches, [&](auto i) { drop_patch(j, i); });
            case 12: return to_one(m, patches, [&](auto i) { cut_patch_from(j, i, pick(docs.slabs, m.across), plan); });
            case 13: return add_tie(j, m.by(), m.across / 4.0);
            case 14: return to_one(m, voids, [&](auto i) { tie_void(j, plan, i); });
            case 15: return to_one(m, voids, [&](auto i) { patch_void(j, plan, i); });
            case 16: return to_one(m, voids, [&](auto i) { cut_void_off(j, plan, i); });
            case 17: return static_cast<void>(tie_cracks(j, plan));
            case 18: return to_one(m, ties, [&](auto i) { move_tie(j, i, m.by()); });
            case 19: return to_one(m, ties, [&](auto i) { drop_tie(j, i); });
            case 20: return static_cast<void>(read_gap(j, 1 + m.of % 3, m.by().x, m.value() / 100));
            case 21: return read_square(j, 1 + m.of % 3, m.by().x, m.along == 255 ? std::nullopt : std::optional(m.value() / 100));
            case 22: return lay_plates(j);
            case 23: return add_channel(j, m.value());
            case 24: return add_plate(j, m.value());
            case 25: return to_one(m, plates, [&](auto i) { move_plate(j, i, m.by()); });
            case 26: return to_one(m, channels, [&](auto i) { move_channel(j, i, m.by()); });
            case 27: return to_one(m, channels, [&](auto i) { drop_channel(j, i); });
            case 28: return to_one(m, plates, [&](auto i) { drop_plate(j, i); });
            case 29: return to_one(m, plates, [&](auto i) { set_plate_gap(j, i, m.across % 4, m.value() / 100); });
            case 30: return add_base_corner(j);
            case 31: return to_one(m, j.under.outline, [&](auto i) { move_base_corner(j, i, m.by()); });
            case 32: return set_form_corner(j, m.of % 4, m.value() / 100);
            case 33: return add_divider(j, 1 + m.of % 3, m.value());
            case 34:
                return to_one(m, j.leaves, [&](auto i) {
                    move_support(j.leaves[i], {{-300, 0}, {300, 100}, {300, -100}}, m.across % 3, m.by());
                });
            case 35: return give_slab(j, pick(docs.slabs, m.across));
            case 36: {
                std::vector<Slab> taken;
                for (std::size_t k = 0; k < 1 + m.of % 3U; ++k) taken.push_back(pick(docs.slabs, static_cast<unsigned char>(m.across + k)));
                return make_up(j, static_cast<MakeUp>(m.along % 6), taken);
            }
            default: return set_a_field(j, m);
        }
    }

    static Climate air(const Move& m) {
        Climate c = generic_climates().at(m.of % generic_climates().size());
        c.months[m.of % 12] = {m.value() / 10, m.across / 2.0};
        return c;
    }

    void shop(const Move& m) {
        constexpr std::array numbers{"density_a", "pot_life_h", "parts_a", "parts_b"};
        switch (m.edit % 6) {
            case 0: return other_units(docs.shop);
            case 1: return static_cast<void>(add_resin(docs.shop));
            case 2: return docs.shop.resins.empty() ? void() : drop_resin(docs, docs.shop.resins[m.of % docs.shop.resins.size()].key);
            case 3:
                return docs.shop.resins.empty() ? void()
                                                : set_resin_number(docs.shop, docs.shop.resins[m.of % docs.shop.resins.size()].key,
                                                                   numbers[m.across % numbers.size()], m.value());
            case 4: return set_shop_air(docs.shop, air(m));
            default: return set_store_air(docs.shop, air(m));
        }
    }

    void make(const Move& m) {
        if (m.edit < 150) {
            if (docs.jobs.count(job) && !docs.slabs.empty()) on_job(docs.jobs.at(job), m);
        } else if (m.edit < 200) slab(m);
        else if (m.edit < 220) shop(m);
        else if (m.edit < 240) mend(m);
        else if (!docs.jobs.empty()) job = pick(docs.jobs, m.of).id;
    }
};

}  // namespace

void play(const std::string& bytes, const Seen& seen) {
    namespace fs = std::filesystem;
    const fs::path path = fs::temp_directory_path() / ("yb-hand-" + std::to_string(::getpid()) + ".shop");
    const auto clear = [&] {
        for (const char* tail : {"", "-wal", "-shm", "-journal"}) fs::remove(path.string() + tail);
        fs::remove_all(backup_folder(path.string()));
    };
    clear();
    {
        Store store = Store::create(path.string(), demo_shop(), "A hand's shop");
        Hand h{demo_shop(), {}, {}};
        if (!bytes.empty()) h.job = pick(h.docs.jobs, static_cast<unsigned char>(bytes[0])).id;
        const auto look = [&] {
            h.plan = h.docs.jobs.count(h.job) ? plan_job(h.docs.jobs.at(h.job), h.docs) : Plan();
            seen(h.docs, h.job, h.plan);
        };
        look();
        std::size_t moves = 0;
        for (std::size_t at = 1; at + 4 <= bytes.size() && moves < most_moves; at += 4, ++moves) {
            const auto byte = [&](std::size_t k) { return static_cast<unsigned char>(bytes[at + k]); };
            try {
                h.make({byte(0), byte(1), byte(2), byte(3)});
            } catch (const Refusal& why) {
                if (std::string(why.what()).empty()) throw std::logic_error("a refusal without a sentence");
                h.docs = store.documents();  // as the program leaves it
            }
            store.append("A move", h.docs);
            look();
        }
        const Documents end = store.documents();
        for (; store.can_undo(); look()) store.undo(), h.docs = store.documents();
        if (!(h.docs == demo_shop())) throw std::logic_error("undo does not bring back what was there");
        for (; store.can_redo(); look()) store.redo(), h.docs = store.documents();
        if (!(h.docs == end)) throw std::logic_error("redo does not bring back what was made");
    }
    clear();
}

}  // namespace yb
