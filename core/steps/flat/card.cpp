// The lanes of a face as a card: the depth of each layer, then its lanes.
#include "core/steps/flat/flat.h"

namespace yb {

namespace {

void layers_of_face(const FacePlan& f, const FlatCardLeaf& leaf, const std::string& key, bool after_rest, const Sled& sled,
                    std::vector<CardStep>& out) {
    const std::size_t rough = f.each.size() - std::min(f.each.size(), static_cast<std::size_t>(std::max(0, f.last_layers)));
    const std::size_t from = after_rest ? rough : 0, to = after_rest ? f.each.size() : rough;
    if (from >= to) return;
    CardStep down{"down " + key, f.face == Face::a ? say("Show face up, on the bench") : say("Underside up, on the bench"),
                  leaf.name.empty() ? Phrase() : named(leaf.name), 300};
    (down.more.empty() ? down.more : down.more.then.emplace_back()) =
        say("on its shims and held; ears, eyes and lungs covered, extraction on");
    out.push_back(std::move(down));
    for (std::size_t i = from; i < to; ++i) {
        const double left = f.levels_mm[i];
        const auto layer = count(static_cast<double>(i) + 1), all = count(static_cast<double>(f.each.size()));
        CardStep set{"set " + key + "." + std::to_string(i + 1), say("Set layer {} of {}", layer, all),
                     left > 0.05 ? say("{} above the finished face", fine(left)) : say("to the finished face"), sled.layer_s};
        set.pace = "layer";
        out.push_back(std::move(set));
        CardStep run{"run " + key + "." + std::to_string(i + 1), say("Run {}", counted(f.each[i].lanes, "lane", "lanes")),
                     say("against the cutter, one pull each; stop where it chatters"), lanes_s(f.each[i], sled)};
        run.pace = "lane";
        out.push_back(std::move(run));
    }
}

}  // namespace

std::vector<CardStep> flat_card(const std::vector<FlatCardLeaf>& leaves, const Sled& sled, FlatCard which) {
    std::vector<CardStep> out;
    for (std::size_t l = 0; l < leaves.size(); ++l)
        for (std::size_t k = 0; k < 2; ++k) {
            if (which == FlatCard::first_face ? k != 0 : which == FlatCard::second_face && k != 1) continue;
            layers_of_face(leaves[l].plan->faces[k], leaves[l], std::to_string(l + 1) + (k == 0 ? "a" : "b"), which == FlatCard::after_rest,
                           sled, out);
        }
    return out;
}

}  // namespace yb
