// Top: what is really there once leaves are laid and flattened – wood, resin, air and what is let in, each in its place.
//
// Made once, by Lay and Flat; every later step asks it. Everything is in the top's own frame: u along, v across, heights up
// from the finished underside. Edges of slabs are ruled between their faces; here they are cut at the finished planes, so
// that `above` and `below` are what the maker will measure on the finished top.
#pragma once

#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/material/resin/resin.h"
#include "core/material/slab/slab.h"
#include "core/material/wood/wood.h"
#include "core/steps/flat/tilt.h"
#include "core/steps/lay/choices.h"
#include "core/steps/makeup/makeup.h"

namespace yb {

enum class RegionKind { leaf, resin, air, patch };
/// "leaf", "resin", "air", "patch": the words of files.
const char* name_of(RegionKind kind);

/// One thing that is there.
struct Region {
    RegionKind kind = RegionKind::leaf;
    std::string of;                      ///< id of the slab (leaf, patch) or key of the resin; empty for air
    std::string name;                    ///< what a maker calls it
    std::size_t index = 0;               ///< which leaf, river or patch; of a filling the leaf it lies in
    bool let_in = false;                 ///< lies inside a leaf: a patch, a filled or open void
    std::optional<std::size_t> river{};  ///< of a filling: it fills with the pour of that river
    Ring above, below;                   ///< its share of the upper face and of the underside; empty where it does not reach
    Vec2 balance;                        ///< its balance point, seen from above: of all its depth, what is let into it taken out
    double low_mm = 0, high_mm = 0;
    double volume_l = 0;  ///< what is let into it taken out
    double mass_kg = 0;   ///< 0 for air, and where the wood's density is not known
    double kg_m3 = 0;     ///< its density
    // of wood
    const Species* species = nullptr;
    Placement placed;                    ///< of the top on its slab: which way grain and rings run
    std::optional<double> pith_mm;       ///< from the middle of the slab's thickness
    Sawn sawn = Sawn::flat;              ///< … where no pith is known
    std::optional<double> moisture_pct;  ///< as it reads
    bool cross_cut = false;

    bool wood() const { return kind == RegionKind::leaf || kind == RegionKind::patch; }
    /// Mean shrinkage across the top at a station, between two places across, percent: from the ring angle there where the pith is
    /// known, radial for a cross-cut, otherwise by how it was sawn. A patch's grain may lie turned: S(θ) = S·cos²θ.
    /// Nothing where the species has no figures; 0 for what is not wood.
    std::optional<double> shrinkage(double u, double v0, double v1) const;
};

/// A stretch across the top at one station.
struct Across {
    std::size_t region = 0;
    double from = 0, to = 0;
};

/// A river between two leaves.
struct RiverRun {
    std::size_t joint = 0;
    Apart above, below;     ///< at the finished upper face and underside
    double area_mm2 = 0;    ///< half-way down
    std::vector<Rod> rods;  ///< of an open one
    // As it is poured, between the blanks' banks to the ends of the form.
    Ring form_above, form_below;
    double form_l = 0;  ///< between the finished planes
    bool operator==(const RiverRun&) const = default;
};

/// A leaf as it stands in the form of a river, at the finished planes: over all its width, between the ends it was rough-cut to. Sides
/// and ends are sawn after the pour.
struct Blank {
    Ring above, below;
    double volume_l = 0, mass_kg = 0;
};

struct Top {
    bool ready = false;  ///< leaves are laid and flattened
    WantedTop wanted;
    Frame bench;        ///< where the top's frame lies on the bench
    Ring above, below;  ///< outline of the finished upper face and of the underside
    double thickness_mm = 0;
    /// Leaves first, from the right edge, then what lies between them, then what is let into them.
    std::vector<Region> regions;
    std::size_t leaves = 0;  ///< how many of the regions are leaves
    double mass_kg = 0;      ///< of all regions; an estimate
    bool mass_known = true;  ///< every wood's density is
    /// How each river runs between its banks at the finished planes, before an overlap is taken off one of them.
    std::vector<RiverRun> rivers;
    std::vector<Blank> blanks;  ///< one a leaf, of a river that is poured
    /// What stands below the finished underside where it was left as sawn: of each leaf its heights, over its slab. Flat's.
    std::vector<std::pair<Frame, std::shared_ptr<const Surface>>> stays;
    /// How much stands below the underside at a place, mm; 0 where it was made flat.
    double stays_mm(Vec2 uv) const;
    double most_stays_mm = 0;  ///< anywhere in the top

    double area_mm2() const { return area(above); }
    /// Resin between leaves, litres.
    double river_l() const;
    /// What is at a place, so high above the underside; nullptr outside.
    const Region* at(Vec2 uv, double height_mm) const;
    /// What lies between the leaves or is a leaf, at a station, from low v to high v. Let-in pieces are not told.
    std::vector<Across> across(double u) const;
    /// How much the wood between two lines widens at a station when its moisture changes, mm: leaf by leaf, each like its
    /// own species and rings; resin and air do not move (Wood Handbook eq. 13-3). Negative for shrinking.
    /// @param leaf_pct moisture of each leaf at the start; @param to_pct of all at the end, 0 to 30.
    double widens(double u, double v0, double v1, const std::vector<double>& leaf_pct, double to_pct) const;
    double widens(double u, double v0, double v1, double from_pct, double to_pct) const;
    /// The station where the wood across is widest, and how wide top and wood are there.
    struct Widest {
        double u_mm = 0, width_mm = 0, wood_mm = 0, low_v = 0, high_v = 0;
    };
    Widest widest() const;
    bool cross_cut() const;
};

/// One leaf as it is laid and flattened.
struct TopLeaf {
    const Slab& slab;  ///< as laid
    const SlabShape& shape;
    Placement placement;
    Tilt tilt;  ///< planes of the finished top on it
    /// Rings of its faces at the finished planes, in the top's frame, where they were worked out before.
    std::shared_ptr<const std::pair<Ring, Ring>> finished{};
    /// What stands below its lower plane, on the slab as laid; nullptr where nothing does.
    std::shared_ptr<const Surface> stays{};
};

struct TopInputs {
    std::vector<TopLeaf> leaves;
    WantedTop wanted;
    const MakeUpChoices& choices;
    const std::vector<JointPlan>& joints;  ///< of a top of several
    Frame bench;
    double thickness_mm = 0;               ///< finished
    const Resin* river = nullptr;          ///< the class a river is poured of
    std::vector<const Slab*> patches{};    ///< each patch is cut from, as measured; nullptr where it is not known
    std::optional<double> moisture_pct{};  ///< typed for the day: of all wood; empty: each leaf as it reads
    double settles_pct = 12;               ///< taken where nothing was read
    Sawn sawn = Sawn::flat;                ///< of wood whose pith nobody knows
};

/// Both faces of a slab cut at two planes along its ruled edges, in the slab's frame. A plane above or below the wood at
/// an edge leaves the edge as it is there.
std::pair<Ring, Ring> finished_faces(const SlabShape& shape, const Tilt& tilt);

/// Makes the top. Not ready when a leaf has no wood in it or no thickness is left.
Top make_top(const TopInputs& in);

/// A void as Fill leaves it: filled or open.
struct Filling {
    std::size_t leaf = 0;
    std::string resin;  ///< key; empty: left open
    std::string name;
    Ring mouth;  ///< at its finished face, on the leaf's slab as laid
    bool from_above = true;
    bool through = false;
    double depth_mm = 0, volume_l = 0, kg_m3 = 0;
    std::optional<std::size_t> river{};
};
/// Lets fillings into the leaves they lie in: their wood goes, resin or air comes.
void let_in(Top& top, const std::vector<Filling>& fillings);

/// The upper face as rings that cover its outline and overlap nowhere, each with its region; what no region covers is air.
struct CoverPiece {
    const Region* region = nullptr;  ///< nullptr: air where wood is missing
    Ring ring;
};
std::vector<CoverPiece> cover(const Top& top);

}  // namespace yb
