// Headlines of what this step minds: at most seven words for each key. A key without one is a mistake that tests/house finds.
#include "core/steps/flat/flat.h"

namespace yb {

std::span<const Headline> flat_headlines() {
    static constexpr Headline all[] = {
        {"flat.airtight", "One face airtight: it cups"},
        {"flat.bed", "The bed is not flat"},
        {"flat.cutter_wide", "A cutter wider than the piece"},
        {"flat.deep", "Layers too deep by hand"},
        {"flat.dust", "Dust of this wood does harm"},
        {"flat.feed", "Feed against the cutter"},
        {"flat.guess", "Taken as flat: a guess"},
        {"flat.hangs", "It hangs through between supports"},
        {"flat.hold", "Hold-downs clear of the cutter"},
        {"flat.hollow", "Lanes come out hollow"},
        {"flat.moved", "It has moved since"},
        {"flat.moves", "It will cup while it settles"},
        {"flat.moving", "It still moves"},
        {"flat.needs", "Thinner than the base needs"},
        {"flat.no_shims", "No shims in stock"},
        {"flat.no_tool", "The shop has no such machine"},
        {"flat.no_wood", "No wood left between the planes"},
        {"flat.power", "More than the router gives"},
        {"flat.rails", "The wood stands above the rails"},
        {"flat.reach", "The cutter stays in the floor"},
        {"flat.rest", "Let it rest before the last pass"},
        {"flat.rocks", "It tips on its supports"},
        {"flat.sag", "The sled sags: hollow in the middle"},
        {"flat.shims_lose", "On these shims it lies askew"},
        {"flat.shims_rock", "It rocks on these shims"},
        {"flat.steep", "No slab lies as steep as this"},
        {"flat.stickout", "The bit stands out too far"},
        {"flat.support_off", "A support stands beside the wood"},
        {"flat.supports", "Too few supports"},
        {"flat.thin", "It finishes too thin"},
        {"flat.tram", "The sled is out of tram"},
        {"flat.turn", "What it weighs at each turn"},
        {"flat.uneven", "Uneven under a plate"},
        {"flat.unshimmed", "No shims: one corner gives everything"},
        {"flat.way", "How it is made flat"},
        {"flat.wrapped", "It settles only once unwrapped"},
    };
    return all;
}

}  // namespace yb
