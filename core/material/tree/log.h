// A log grown by numbers: practice wood, demo wood, and the truth that tests compare with.
//
// T(p) is the year in which the wood at p was laid down. For the stem alone it follows from the distance to a
// pith that sweeps and wanders, over a radius that tapers, flares at the butt and is never quite round. A
// branch is a thinner stem that starts at the pith and leans out; the tree of a year is the smooth union of
// all of them, so T is a smooth minimum. Rings are level surfaces of T: grain flows around knots by itself,
// a fork makes its own feathered figure, a branch that died stops growing and is swallowed.
//
// Log frame: x from the butt to the top, y and z across, all mm. Everything follows from the recipe's seed
// and the place alone, whatever thread asks.
#pragma once

#include <array>
#include <cstdint>
#include <optional>
#include <string>
#include <vector>

#include "core/ground/geometry/geometry.h"
#include "core/ground/geometry/noise.h"
#include "core/material/slab/slab.h"

namespace yb {

/// A branch: where it leaves the pith, its bearing around the stem, how steeply it climbs (90° runs along
/// the stem), when it was born and died (0: it lived), how fast it thickened and lengthened.
struct BranchRecipe {
    double x_mm = 0, bearing_deg = 0, dive_deg = 35;
    double born = 4, died = 0;
    double growth_mm = 0.9;  ///< of its radius, a year
    double reach_mm = 90;    ///< of its length, a year
    bool fork = false;       ///< a second stem, not trimmed off at the bark
    bool operator==(const BranchRecipe&) const = default;
};

/// Something in the wood that is none: an ellipsoid along the fibre.
struct PocketRecipe {
    FlawKind kind = FlawKind::pocket;                ///< pocket (bark), soft (rot) or insects
    double x_mm = 0, bearing_deg = 0, depth_mm = 0;  ///< depth from the pith
    double half_length_mm = 80, half_across_mm = 12, half_radial_mm = 6;
    bool operator==(const PocketRecipe&) const = default;
};

struct LogRecipe {
    std::uint64_t seed = 1;
    std::string species = "sycamore, American";
    double length_mm = 3000;
    double butt_mm = 620, top_mm = 540;  ///< diameters under bark, flare not counted
    int years = 80;
    double sweep_mm = 45, sweep_bearing_deg = 20;  ///< bow of the pith over the length
    double wander_mm = 9;
    double flare_mm = 45;  ///< added to the radius at the very butt
    double out_of_round = 0.05;
    double pith_off_mm = 0, pith_bearing_deg = 0;  ///< the wood's middle lies so far from the pith, at the butt
    double bark_mm = 14;
    double spiral_deg = 1.5;    ///< of the fibre against the pith, at the bark
    double curl = 0;            ///< 0 none to 1 strong
    double spalting = 0;        ///< 0 none to 1 everywhere
    double end_check_mm = 160;  ///< longest crack at an end
    std::vector<BranchRecipe> branches;
    std::vector<PocketRecipe> pockets;
    bool operator==(const LogRecipe&) const = default;
};

/// A second stem that leaves the first at a place along it: the two share their heartwood there, and the saw finds the
/// feathered figure of a crotch between them.
void add_fork(LogRecipe& recipe, double at_share = 0.45);

/// A recipe drawn by lot: knots, pockets and crookedness as a sawmill's yard has them.
LogRecipe drawn_recipe(std::uint64_t seed, const std::string& species, double length_mm, double butt_mm);

/// How a wood looks, by group of species.
struct WoodLook {
    enum class Pores { diffuse, ring, softwood };
    std::array<double, 3> sap{}, heart{}, late{}, bark{};  ///< RGB, 0 to 255
    Pores pores = Pores::diffuse;
    double late_share = 0.3;  ///< how dark the end of a ring is
    double ray = 0;           ///< how much rays show where they lie in the face
    double sap_years = 15;
};
WoodLook look_of(const std::string& species);

class GrownLog {
  public:
    /// @throws std::invalid_argument for a recipe that grows no log (no length, no thickness, no years).
    explicit GrownLog(LogRecipe recipe);

    struct Here {
        double year = 0;                          ///< T(p)
        double stem = 0;                          ///< of the stem alone
        double dy = 0, dz = 0, r = 0, angle = 0;  ///< from the pith
        double radius = 0;                        ///< of the stem under bark in that direction
        int branch = -1;                          ///< whose wood it is; −1 the stem
        double branch_year = 1e9;
        double blend = 0;     ///< 0 to 1, how near the seam of two stems
        bool collar = false;  ///< the bark around a dead branch
    };
    Here at(Vec3 p) const;
    /// True in wood: laid down by now, and not a branch beyond the bark.
    bool inside(const Here& h) const;
    bool inside(Vec3 p) const { return inside(at(p)); }

    /// y and z of the pith at a place along the log.
    Vec2 pith(double x_mm) const;
    double radius(double x_mm, double angle_rad) const;
    /// Which pocket a place lies in, or −1.
    int pocket_at(Vec3 p, const Here& h) const;
    /// Direction of a branch from the pith, unit length, and its start.
    Vec3 branch_direction(std::size_t i) const { return branches_[i].direction; }
    Vec3 branch_start(std::size_t i) const { return branches_[i].start; }
    /// Depth along x of the end crack at this angle, mm; 0 where there is none. `far_end`: at the top.
    double check_depth(double angle_rad, bool far_end) const;
    const std::vector<double>& check_angles() const { return check_angles_; }

    /// What a walk along a row of a picture keeps between its places: one for each row.
    struct Walk {
        NoiseWalk heart, fibre, pore, patch, streak, curl, feather, spalt, zone, fine;
    };
    /// Colour of the wood at a place on a face with this normal (unit), RGB 0 to 255.
    std::array<double, 3> colour(Vec3 p, const Here& h, Vec3 normal, Walk& walk) const;

    const LogRecipe& recipe() const { return recipe_; }

  private:
    struct Branch {
        BranchRecipe recipe;
        Vec3 start, direction;
        double longest = 0;  ///< how far it reaches, mm
    };
    struct Wobble {
        float radius = 0, ring = 0;
    };
    Wobble wobble(double x, double angle) const;
    double year_of(double share) const;

    LogRecipe recipe_;
    WoodLook look_;
    std::uint32_t seed_ = 0;
    bool forked_ = false;
    std::vector<Vec2> pith_;        ///< every 5 mm
    std::vector<float> base_;       ///< radius before wobble, every 5 mm
    std::vector<Wobble> wobble_;    ///< every 20 mm, angles all round
    std::vector<double> years_of_;  ///< year at a share of the radius
    std::vector<Branch> branches_;
    std::vector<std::vector<int>> near_;  ///< branches that may matter, every 50 mm
    std::vector<std::vector<int>> pockets_near_;
    std::vector<double> check_angles_, check_mm_[2];
};

}  // namespace yb
