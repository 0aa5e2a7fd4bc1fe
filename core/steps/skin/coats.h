// Coats: what a class of finish takes, how much to mix now and how long it stays usable, when the next may go on; zones that can be wiped
// in time.
//
// Every number is a starting value of its class, to be set by the label; times are told at the shop's air: twice as long for each 10 °C
// below 20.
#pragma once

#include <array>
#include <optional>
#include <vector>

#include "core/ground/geometry/geometry.h"
#include "core/steps/skin/choices.h"

namespace yb {

/// What the label of a class of finish says. Times at 20 °C.
struct FinishClass {
    double first_ml_m2 = 0, more_ml_m2 = 0;  ///< of the first coat and of each after it
    int coats = 1;
    double parts_a = 1, parts_b = 0;       ///< by volume; B 0: one part
    double soak_min = 0, window_min = 0;   ///< left to soak; from the first of it to the last wiped, or a wet edge kept
    double on_min_m2 = 0, off_min_m2 = 0;  ///< put on, wiped off
    double recoat_h = 0, recoat_to_h = 0;  ///< the next coat from, and at latest without sanding; 0: any time
    double handle_h = 0, cure_h = 0;
    double low_c = 10, high_c = 28;  ///< air it allows
    bool wiped = false;              ///< all of it comes off again: rags
    bool film = false;               ///< it stands on the wood
    bool oily = false;               ///< its rags can set themselves alight
    bool drips = false;              ///< sanded off underneath
    double between_grit = 0;         ///< very lightly between coats; 0: not
    double maintain_ml_m2 = 0, maintain_months = 0;
    std::optional<double> price_l{};  ///< of a litre as mixed; empty: not said
    std::optional<double> left_l{};   ///< on the shelf; empty: not said
    bool operator==(const FinishClass&) const = default;
};
/// Where a class of finish starts, before the maker has typed his own label.
const FinishClass& class_of(Finish finish);

/// What stands in the cupboard: for each class what the maker's label says.
struct FinishShelf {
    std::array<FinishClass, finishes.values.size()> labels = starting();
    const FinishClass& of(Finish finish) const { return labels.at(finishes.index(finish)); }
    static std::array<FinishClass, finishes.values.size()> starting();
    bool operator==(const FinishShelf&) const = default;
};
void fields(FieldVisitor& v, FinishClass& c);
/// Each class by its key.
void fields(FieldVisitor& v, FinishShelf& s);

/// Times the label's hours take at such air: 2^((20 − T)/10). Check: 10 °C → 2. Held between 0.25 and 8.
double stretched(double air_c);

/// How large a zone may be so that the last of it is wiped within the window, m²: max(s, p·a) + q·a = w; without wiping p·a = w.
/// Check: s 5, w 15, p 2.5, q 4 → 2.308; p 5, q 8 → 1.154. Nothing ends in a window of no minutes: 0. @throws std::invalid_argument for a
/// pace of nothing.
double zone_m2(double soak_min, double window_min, double on_min_m2, double off_min_m2);

struct Zone {
    std::string face;
    int coat = 1, order = 1;
    Ring ring;  ///< in the top's frame; what is below is of the whole zone, which may lie in several pieces
    double m2 = 0;
    double minutes = 0;     ///< from the first of it to the last wiped
    double window_min = 0;  ///< there are so many, at the shop's air
    double ml = 0;          ///< to mix for it, what rags keep counted
};

/// A piece of a zone: pieces of one order are one zone.
struct ZonePiece {
    int order = 1;
    Ring ring;
};
/// A face cut across its length into zones of one size, none larger than `most_m2`, in their order from the left. Together they are the
/// face, and overlap nowhere. One where `most_m2` is 0 and the face is not: what then can't be done is told. 400 at most.
/// @param m2 of it that is treated: air and resin left out, the zones share it by their rings.
std::vector<ZonePiece> zones_of(const std::vector<Ring>& face, double m2, double most_m2);
/// The same cut where the maker wants it. @param seams_mm along the top, in any order; those beyond the face cut nothing.
std::vector<ZonePiece> zones_at(const std::vector<Ring>& face, const std::vector<double>& seams_mm);

}  // namespace yb
