// Flat, what the maker decides, and the sled that it is done with.
#pragma once

#include <vector>

#include "core/fields/fields.h"
#include "core/figure/figure.h"

namespace yb {

namespace step_key {
inline constexpr Step flat{"flat"};
}

enum class FlatAim {
    share_out,   ///< the tilt that leaves the thickest slab
    spare_show,  ///< least off the show face, the wanted thickness kept: take from underneath
    as_it_lies   ///< no shims
};
enum class FinishTo { wanted, thickest };
enum class FirstFace { show, underside };

struct Support {
    double x_mm = 0, y_mm = 0;  ///< on the slab as laid
    bool operator==(const Support&) const = default;
};

/// The maker's sled, cutter and pace. Every number is a starting value to be changed.
struct Sled {
    double cutter_mm = 38;                                         ///< diameter of the surfacing cutter
    double overlap = 0.5;                                          ///< of neighbouring lanes, share of the cutter
    double depth_mm = 3;                                           ///< per layer
    double feed_mm_s = 60;                                         ///< along a lane
    double turn_s = 3;                                             ///< from one lane to the next
    double layer_s = 90;                                           ///< to set the next depth
    double floor_mm = 12;                                          ///< thickness of the sled's floor
    double rail_mm = 95;                                           ///< top of the rails above the bench
    double stickout_mm = 25;                                       ///< how far the bit may stand out (25 mm on a 12.7 mm shank)
    double tram_mm = 0;                                            ///< rise over the cutter's width, when the sled is out of tram
    double span_mm = 1000;                                         ///< between the rails, that the sled bridges
    double beams = 2;                                              ///< that stiffen the sled
    double beam_wide_mm = 18, beam_high_mm = 60;                   ///< each
    double beam_mpa = 10000;                                       ///< modulus of elasticity of their wood
    double router_n = 60;                                          ///< weight of the router and the hand on it
    double loose = 4;                                              ///< loose chips fill so many times the wood they were: a starting value
    double bag_l = 60;                                             ///< that a bag of the extraction holds
    std::vector<double> spacers_mm{6, 9, 12, 18, 24, 30, 36, 48};  ///< flat boards at hand
    bool operator==(const Sled&) const = default;
};

struct FlatChoices {
    FlatAim aim = FlatAim::share_out;
    FinishTo finish = FinishTo::wanted;
    FirstFace first = FirstFace::show;
    double rest_h = 24;             ///< between the faces and the last passes
    double allowance_mm = 1;        ///< left on each face for the last pass after the rest
    bool both_faces_to_air = true;  ///< while it rests
    bool operator==(const FlatChoices&) const = default;
};

inline constexpr auto flat_aims =
    school("flat.aim", "aim", "Where the twist goes", &FlatChoices::aim, Way{FlatAim::share_out, "share_out", "Share it out"},
           Way{FlatAim::spare_show, "spare_show", "Take from underneath"}, Way{FlatAim::as_it_lies, "as_it_lies", "No shims"});
inline constexpr auto flat_finishes =
    school("flat.finish", "finish", "How thick", &FlatChoices::finish, Way{FinishTo::wanted, "wanted", "To the wanted thickness"},
           Way{FinishTo::thickest, "thickest", "As thick as it comes"});
inline constexpr auto flat_firsts =
    school("flat.first", "first", "First face", &FlatChoices::first, Way{FirstFace::show, "show", "Show face first"},
           Way{FirstFace::underside, "underside", "Underside first"});
inline constexpr auto flat_airs = school("flat.air", "both_faces_to_air", "While it rests", &FlatChoices::both_faces_to_air,
                                         Way{true, "both", "Air on both faces"}, Way{false, "down", "One face down"});

void fields(FieldVisitor& v, Support& s);
void fields(FieldVisitor& v, Sled& s);
void fields(FieldVisitor& v, FlatChoices& c);

}  // namespace yb
