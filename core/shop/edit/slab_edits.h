// Edits of slabs and of the rack.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/material/slab/slab.h"
#include "core/steps/flat/yard.h"

namespace yb {

struct Documents;
struct Job;
struct Plan;

/// Puts a slab on the rack under an id of its own; without a name it gets one. @returns the id.
std::string add_slab(Documents& docs, Slab slab);
/// A second slab like this one. @returns its id.
std::string copy_slab(Documents& docs, const std::string& slab);
/// Leaves and patches of a job that were of one slab are of another from now on: for slabs that are given another id.
void take_instead(Job& job, const std::string& was, const std::string& now);
/// Two shorter slabs of the same tree, cut at a station; the whole one is retired. @returns the left one's id.
/// @throws std::invalid_argument when nothing lies on one side.
std::string split_slab(Documents& docs, const std::string& slab, double at_mm);
/// A moisture reading of today; the one before is kept, drying is forecast from them. Empty: no reading holds any more.
void read_moisture(Slab& slab, std::optional<double> pct, const std::string& today);
/// A flaw drawn on a face, with an id of its own and a depth to start from.
/// @param outline as drawn. @param seen_over on the slab as it lies turned over: the face up is B, across is mirrored.
/// @param pen cracks, pith and scars are lines, widened by their pen; false: the outline is as it is.
void add_flaw(Slab& slab, FlawKind kind, Ring outline, bool seen_over, bool pen = true);
void move_flaw(Slab& slab, std::size_t flaw, Vec2 by);
/// Cracks, pith and scars are lines: they are painted along with a pen of this width, mm; 0 for what has an outline.
double pen_of(FlawKind kind);
void drop_flaw(Slab& slab, std::size_t flaw);
/// Its name; an empty one is kept too: a slab may go by its number.
void name_slab(Slab& slab, const std::string& name);
/// The tree it came from: slabs of one tree are matched.
void set_tree(Slab& slab, const std::string& tree);
/// The day it was sawn, empty where nobody knows. @throws Refusal for what is no date written as 2025-03-30.
void set_sawn_on(Slab& slab, const std::string& date);
/// The day it came into the shop, likewise. @throws Refusal.
void set_came_on(Slab& slab, const std::string& date);
void set_dried(Slab& slab, Dried dried);
/// Looked at, with nothing to write down: Slab::faces_looked, no_flaws or no_pith.
void set_looked(Slab& slab, bool Slab::*what, bool looked);
/// @param species by its name in the table of woods.
void set_species(Slab& slab, const std::string& species);
/// Sawn across the log: a disc.
void set_cross_cut(Slab& slab, bool across);
/// It leaves the rack and stays in the record.
void retire(Slab& slab);
/// The other face's outline and picture, from a photograph seen from below. @param outline of both, matched
/// (match_outlines). @param seen the photograph's own outline. @param place of the picture as photographed, with its key.
void take_other_face(Slab& slab, const TracedOutline& both, const TracedOutline& seen, FacePicture place);
/// Slabs of one log as they lay in it, from the lowest up: their number, which face lay up, which end was which.
struct LayInLog {
    std::string slab;
    bool over = false, ended = false;
};
void number_slabs(Documents& docs, const std::vector<LayInLog>& from_the_lowest);
/// One of the six readings at the yard (core/steps/flat/yard.h), the others as they were, 0 where none was; empty: taken for straight.
/// @throws Refusal while the slab has no edges, or where face A has heights of another kind.
void read_at_yard(Slab& slab, double YardReading::*what, std::optional<double> value);
/// A grid for heights, every 200 mm along and 150 mm across, on each face that has no readings yet.
void lay_height_grid(Slab& slab);
/// The rough cuts of a job are made: what falls off goes back to the rack as slabs of the same tree.
/// @param plan of the job as it lies.
void make_rough_cuts(Documents& docs, const std::string& job, const Plan& plan);

}  // namespace yb
