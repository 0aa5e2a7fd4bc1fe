// A slab as the maker measured it, and the shape that follows from the measuring.
//
// Slab holds inputs only. The frame: a chalk line is struck along the slab; x runs along it from the left
// end, y to the left of it ("away" on the plan), z up from the bench. Face A is up as measured, face B down.
//
// The tape table: at each station the distances from the chalk line to the left and the right edge on face
// A, and for face B either its own distances or a lean per side: how far the edge of face B stands outside
// (positive) or inside (negative) the edge of face A.
//
// Heights: gaps under a straightedge on one flat reference over the face (winding strips, rails), positive
// down into the face, on a grid. Thickness (caliper) ties the two faces together; see shape_of().
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/ground/fields/fields.h"
#include "core/ground/figure/figure.h"
#include "core/ground/geometry/geometry.h"

namespace yb {

enum class Face { a, b };

/// How it was dried; unknown: nobody said.
enum class Dried { unknown, air, kiln };

struct Station {
    double x_mm = 0;
    std::optional<double> left_mm, right_mm;              ///< chalk line to edge, face A
    std::optional<double> other_left_mm, other_right_mm;  ///< the same on face B; empty: from the lean
    std::optional<double> thickness_mm;                   ///< at the left edge, or of the whole station
    std::optional<double> thickness_right_mm;             ///< at the right edge, where it differs
    bool operator==(const Station&) const = default;
};

struct Tape {
    std::vector<Station> stations;
    double lean_left_mm = 0, lean_right_mm = 0;
    bool operator==(const Tape&) const = default;
};

/// Straightedge gaps at crossings of x and y; an empty gap was not read.
struct HeightGrid {
    std::vector<double> x_mm, y_mm;
    std::vector<std::optional<double>> gap_mm;  ///< row by row of x; size x·y
    bool operator==(const HeightGrid&) const = default;
    std::optional<double>& at(std::size_t i, std::size_t j) { return gap_mm[i * y_mm.size() + j]; }
    const std::optional<double>& at(std::size_t i, std::size_t j) const { return gap_mm[i * y_mm.size() + j]; }
    bool has_readings() const;
};

enum class FlawKind { crack, void_, pocket, knot, soft, insects, pith, scar };
const char* name_of(FlawKind kind);
/// With its article, as a sentence takes it: "a crack", "insect holes", "the pith".
const char* a_flaw(FlawKind kind);

struct Flaw {
    std::string id;
    FlawKind kind = FlawKind::void_;
    Face face = Face::a;
    Ring outline;  ///< on that face, in the slab's frame
    bool through = false;
    std::optional<double> depth_mm;  ///< from that face; needed unless through
    double floor_share = 1;          ///< width of its floor over width of its mouth: 1 straight, 0 to a point
    std::string note;
    bool loose = false;          ///< a knot: dead, it may fall out
    std::optional<int> holes{};  ///< of insects: so many inside the outline, as counted; empty: the outline is one hole
    double hole_mm = 2;          ///< … each so wide
    bool operator==(const Flaw&) const = default;
};

/// An outline traced from a picture, a scan, a drawing or a grown log: it takes the place of the tape's edges.
struct TracedOutline {
    Ring a, b;            ///< matched: a[i] and b[i] end the same ruled line
    double error_mm = 0;  ///< how far off it may be
    std::string from;     ///< "photograph", "scan", "drawing", "grown"
    bool operator==(const TracedOutline&) const = default;
};

/// The picture of a face, kept in the shop under its key. Column i shows x = corner.x + i · mm_per_px, row j
/// shows y = corner.y − j · mm_per_px, both faces as seen from above face A.
struct FacePicture {
    std::string key;
    double mm_per_px = 1;
    int width_px = 0, height_px = 0;
    Vec2 corner;
    bool mirrored = false;  ///< rows run the other way: the slab was turned over
    bool operator==(const FacePicture&) const = default;
};

/// A moisture meter's reading and its day.
struct MoistureReading {
    std::string on;  ///< ISO date
    double pct = 0;
    bool operator==(const MoistureReading&) const = default;
};

struct Slab {
    std::string id;
    std::string name;
    std::string species;            ///< a name of the species table
    std::string tree;               ///< which log or tree; offcuts and sisters share it
    std::optional<int> sequence;    ///< number in the log, from the lowest up
    bool cross_cut = false;         ///< a disc sawn across the log: its faces are end grain
    bool face_b_up = false;         ///< it lay in the log with face B up
    bool ends_swapped = false;      ///< its left end lay at the log's right one
    std::optional<double> pith_mm;  ///< from the middle of the slab's thickness to the pith
    std::optional<double> moisture_pct;
    std::string moisture_on;                    ///< date of that reading, ISO
    std::vector<MoistureReading> moisture_log;  ///< earlier readings, as they were taken
    std::string sawn_on;                        ///< ISO date; empty: not known
    Dried dried = Dried::unknown;
    std::string came_on;                ///< into the shop, ISO date; empty: not known
    std::optional<double> settle_days;  ///< it lies in the shop before it is worked; empty: the starting value of how it was dried
    bool faces_looked = false;          ///< both faces were looked at, and which shows is chosen
    bool no_flaws = false;              ///< looked for, none found
    bool no_pith = false;               ///< looked for, not to be told
    bool retired = false;               ///< used up or gone; kept for the record
    std::string cut_from;               ///< id of the slab it is an offcut of; empty: sawn from the log
    std::optional<double> price;
    std::string notes;
    std::optional<TracedOutline> outline;
    std::optional<FacePicture> picture_a, picture_b;
    Tape tape;
    HeightGrid heights_a, heights_b;
    std::optional<HeightGrid> truth_a, truth_b;  ///< of a practice slab: how its faces truly lie, on the readings' own reference
    std::string scan;                            ///< key of the point cloud that the heights were taken from; empty: they were read by hand
    std::vector<Flaw> flaws;
    std::string kept;  ///< fields of a newer program, kept as they came: JSON
    bool operator==(const Slab&) const = default;
};

void fields(FieldVisitor& v, Station& s);
void fields(FieldVisitor& v, Tape& t);
void fields(FieldVisitor& v, HeightGrid& g);
void fields(FieldVisitor& v, Flaw& f);
void fields(FieldVisitor& v, TracedOutline& o);
void fields(FieldVisitor& v, FacePicture& p);
void fields(FieldVisitor& v, MoistureReading& r);
void fields(FieldVisitor& v, Slab& s);

/// Each flaw as a thing to be picked, as the slab lies. @param shape of it. Its own frame.
std::vector<Thing> flaw_things(const Slab& slab, const struct SlabShape& shape);

/// What the measuring adds up to. Rings are matched: ring_a[i] and ring_b[i] end the same ruled line.
struct SlabShape {
    Ring ring_a, ring_b;    ///< counter-clockwise, seen from above face A
    Surface top, bottom;    ///< heights of face A and face B, mm from the bench, lowest of B at 0
    double x0 = 0, x1 = 0;  ///< first and last station
    bool heights_a = false, heights_b = false;
    double disagreement_mm = 0;  ///< worst misfit between both faces' readings and the thickness readings
    bool usable = false;         ///< outline and thickness are there and sound
    std::vector<Caution> cautions;

    double thickness_at(Vec2 p) const { return top.at(p) - bottom.at(p); }
    /// The outline at a share of the thickness: 0 at face B, 1 at face A.
    Ring ring_at(double share) const;
};

/// Shape of a slab. Edges run as a monotone cubic between stations; a missing edge or thickness is bridged
/// from its neighbours and said so. With heights on both faces, face B is set against face A by the rigid
/// plane that fits the thickness readings best (least squares; minimum norm when they are too few); with
/// heights on one face, the other lies one thickness away; with none, both are flat: a guess, and said so.
/// Readings outside the outline, crossing edges and a thickness of nothing are named with their place.
SlabShape shape_of(const Slab& slab);

/// The slab turned over about its long axis: face B up, y mirrored, flaws and heights with it.
Slab turned_over(const Slab& slab);

/// Volume in m³ of wood between two levels of the shape, as shares of the thickness, inside `region`.
/// Edges are ruled between matched rings, so the area is quadratic in height and Simpson's rule is exact.
double volume_m3(const SlabShape& shape, const Ring& region, double thickness_mm, double low_share = 0, double high_share = 1);

/// Widths of face A, exact for its outline but for the last hundredth at either end (ends are rarely square), and thicknesses over the slab
/// at 60 stations, the mean weighted by how wide it is there; of a cross-cut its diameters through the middle of the face.
struct SlabMeans {
    double width_mm = 0, narrowest_mm = 1e300, widest_mm = 0, narrow_x_mm = 0;
    double thickness_mm = 0, thinnest_mm = 1e300, thickest_mm = 0;
};
SlabMeans means_of(const SlabShape& shape, bool cross_cut = false);

/// Wood between both faces, litres: areas by Simpson's rule over three levels, times the mean thickness.
double litres_of(const SlabShape& shape, const SlabMeans& means);

/// What of a face could be a top, m²: length × narrowest width; of a cross-cut the whole of the smaller face.
double usable_m2(const SlabShape& shape, const SlabMeans& means, bool cross_cut);

/// Board feet: length × mean width × mean thickness in inches / 144, over the stations.
double board_feet(const SlabShape& shape, const SlabMeans& means);

/// Figures of the slab on the rack: length, widths, thickness, weight, board feet, what it costs a measure.
std::vector<Figure> figures_of(const Slab& slab, const SlabShape& shape, const SlabMeans& means);

/// Density in kg/m³ of this slab's wood at its moisture (12 % where none is read); empty when the species
/// table gives no specific gravity.
std::optional<double> density_of(const Slab& slab);

}  // namespace yb
