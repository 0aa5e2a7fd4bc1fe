// The order of a log's slabs when nobody wrote it down: from their edges, knots, the log's bend and, where there are
// pictures, from the likeness of the faces that the saw parted.
//
// Two slabs that were neighbours share a cut: the upper face of the one and the lower face of the other are the same
// surface but for the kerf, so their outlines nearly agree and knots come out at the same places. Besides, how much wider
// one face of a slab is than the other tells how far from the middle of the log it lay, and neighbours lay one thickness
// and a kerf apart: so a narrow outermost face can't be inside an order, however well it fits the other outermost one.
// Every face of every slab is compared with every face of every other, both ways round, slid along (faces.h); the likeliest
// order and turns are then found over all of them (dynamic programming over subsets, Held and Karp 1962: exact up to
// twelve slabs; above that the best few thousand part-orders are followed). Upside down or end for end the whole log
// tells the same: the first slab given keeps its own way up and round unless something is pinned.
#pragma once

#include <optional>
#include <vector>

#include "core/ground/picture/picture.h"
#include "core/ground/work/work.h"
#include "core/material/slab/slab.h"

namespace yb {

struct SequenceItem {
    const Slab* slab = nullptr;
    const SlabShape* shape = nullptr;  ///< as measured
    const Picture* face_a = nullptr;   ///< as slab.picture_a places them; nullptr for none
    const Picture* face_b = nullptr;
    std::optional<int> position;      ///< pinned: from 0, the lowest
    std::optional<bool> over, ended;  ///< pinned: turned over, end for end
};

struct SequencePlace {
    std::size_t item = 0;
    bool over = false;      ///< its face A was the lower one
    bool ended = false;     ///< its left end was the log's right one
    double confidence = 1;  ///< 0 to 1, of the joint with the place below; 1 for the lowest
    double shift_mm = 0;    ///< along the log, against the place below
    double cost = 0;        ///< of that joint: minus the logarithm of its likelihood, but for a constant
    bool parted = true;     ///< the saw can have parted it from the place below; true for the lowest
    bool stranger = false;  ///< fits none of the others as a neighbour: of another log, or its neighbours are missing
};

struct Sequence {
    std::vector<SequencePlace> places;  ///< from the lowest up; strangers after all others unless something is pinned
    /// 0 to 1: how sure the order of those is that are no strangers. Of orders told with 0.9 nine in ten are right
    /// (docs/methods.md, Sequence).
    double confidence = 0;
    double cost = 0;  ///< minus the logarithm of its likelihood, but for a constant
    bool exact = true;
};

/// @param kerf_mm of the saw that parted the slabs.
/// @throws std::invalid_argument for more than 60 slabs, for pins that contradict each other or a slab without an
/// outline. @throws Cancelled.
Sequence put_in_order(const std::vector<SequenceItem>& items, const Work& work = {}, double kerf_mm = 4);

}  // namespace yb
