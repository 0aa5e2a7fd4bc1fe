// Edits: what a gesture does to a job, a slab or a shop – each a named function that a view, a shell command or a test can
// call. Views draw and turn gestures into these; they do no arithmetic and make no ids.
#pragma once

#include <functional>
#include <map>
#include <optional>
#include <stdexcept>
#include <string>
#include <utility>
#include <vector>

#include "core/ground/figure/figure.h"
#include "core/ground/file/format_error.h"
#include "core/material/slab/slab.h"
#include "core/steps/lay/choices.h"
#include "core/steps/makeup/choices.h"

namespace yb {

struct AirLog;
struct BaseCorner;
struct Channel;
struct ChannelSection;
struct Climate;
struct Documents;
struct Job;
struct Leaf;
struct LegPlate;
struct MakeUpInputs;
struct Placement;
struct Plan;
struct Shop;
struct Slab;
enum class TopShape;
enum class EdgeRead;

/// What can't be made, said as a sentence; what it was asked of stays as it was.
struct Refusal : Told {
    explicit Refusal(Phrase why) : Told(render(why, Units::metric())), says(std::move(why)) {}
    Phrase says;
};

/// A name that was typed: spaces around it go, an empty one leaves the name as it was.
void set_name(std::string& name, const std::string& typed);

/// `stem-1`, `stem-2`, …: the first that is not taken.
std::string first_free(const std::string& stem, const std::function<bool(const std::string&)>& taken);
/// An id that no slab and no job has: `stem-1`, `stem-2`, …
std::string fresh_id(const char* stem, const Documents& docs);

// --- Choices and slabs of a job

/// Sets a school of thought by the keys that the plan's choices carry. @param leaf the one on the bench, where the choice
/// is one of its own. @throws std::invalid_argument for a choice or option it does not know.
void set_choice(Job& job, const std::string& choice, const std::string& option, int leaf = 0);
/// The same, and a make-up is laid anew where the choice asks for it. @param slabs of the shop. @throws Refusal where that is not possible.
void take_choice(Job& job, const std::map<std::string, Slab>& slabs, const std::string& choice, const std::string& option, int leaf = 0);
/// The leaves of a job, for who does not see what else a job is made of.
const std::vector<Leaf>& leaves_of(const Job& job);
/// Gives a slab to a job as its only one: its top goes to the middle, what was set for another slab is forgotten.
void give_slab(Job& job, const Slab& slab);
/// Lays slabs together as a make-up (core/steps/makeup/arrange.h). @throws Refusal where it is not possible; the job stays then.
void make_up(Job& job, MakeUp kind, const std::vector<Slab>& slabs);
/// Where the leaves of a river lie when it is evened between its banks at the finished planes of this plan, above and below.
/// @param in of that plan.
std::vector<Placement> evened_river(const MakeUpInputs& in, const Plan& plan);
/// A job of its own for a slab of the shop, with an id of its own. @returns the id.
std::string add_job(Documents& docs, const std::string& name, const std::string& start);
/// A job of its own on one slab, called by a number. @returns its id.
std::string add_job_on(Documents& docs, const Slab& slab, const std::string& start);
/// Gives it another name; spaces around it go, an empty one leaves it as it was.
void rename_job(Job& job, const std::string& name);
void set_client(Job& job, const std::string& client);
/// @throws Refusal for what is no date written as 2026-11-30.
void set_first_day(Job& job, const std::string& date);
/// The air of the room the table will stand in.
void set_room(Job& job, const Climate& room);
/// The months that a logger stood there; the others stay as they were.
void set_room_air(Job& job, const AirLog& log, const std::string& name);

// --- Lay

/// Moves a single top on its slab by so many mm of the slab, or turns it about its middle.
void move_top(Job& job, Vec2 by_on_slab);
void turn_top(Job& job, double degrees);
/// The shape of the wanted top: a round one is as wide as long, only a rectangle keeps live edges by itself.
void set_top_shape(Job& job, TopShape shape);
/// What a search for a place does about a kind of flaw.
void set_flaw_wish(Job& job, FlawKind kind, Wish wish);
/// Makes the top a free form of this outline, in the top's frame as it lies; the middle of its box becomes the top's, the
/// wood stays where it lies under it. Its live edges go.
void set_free_form(Job& job, Ring outline);
/// The same of an outline from anywhere, its middle laid over the middle of the top as it lies.
void set_free_form_over_middle(Job& job, Ring outline);
/// Takes a thing that was done as done, or as not done after all: faces flat, joints ripped.
void mark_done(Job& job, bool MakeUpChoices::*what);
/// Cut across in two halves so far from the left end; nothing: in one piece.
void set_halves_from_left(Job& job, std::optional<double> from_left_mm);
/// Whether the middle joint follows the right leaf's edge.
void set_middle_joint_curved(Job& job, bool curved);
/// Moves or turns a leaf in the top: by so many mm of it, by degrees about a place of it.
void move_leaf(Job& job, std::size_t leaf, Vec2 by_uv);
void turn_leaf(Job& job, std::size_t leaf, Vec2 about_uv, double degrees);
/// Moves a rip line across. With `same_line` the line in the log moves for both: the joint stays, the leaves close up.
void move_joint(Job& job, std::size_t joint, double by_mm, bool same_line);
/// Turns a slab of the job over about its long axis; placement, supports and base follow. One of several leaves is
/// turned about a line of the top at `about_v_mm`, so that it stays where it lies.
void turn_over(Job& job, int leaf = 0, double about_v_mm = 0);
/// Turns a single top end for end on its slab, or one leaf of several end for end about (0, about_v_mm) of the top.
void end_for_end(Job& job, int leaf = 0, double about_v_mm = 0);
/// Placements of all leaves, in their order; those beyond are left out.
void set_placements(Job& job, const std::vector<struct Placement>& all);

// --- Patches

/// A patch over this outline of the top, with an id of its own.
void add_patch(Job& job, Ring outline);
void drop_patch(Job& job, std::size_t patch);
void move_patch(Job& job, std::size_t patch, Vec2 by_uv);
void turn_patch(Job& job, std::size_t patch, double degrees);
/// Where on its slab a patch is cut: along (Vec2::x) or across (Vec2::y), mm. A patch that has gone meanwhile is let be.
void set_patch_place(Job& job, std::size_t patch, double Vec2::*side, double mm);
/// Of no slab that is said.
void patch_from_nothing(Job& job, std::size_t patch);
/// Cuts a patch from a slab, at the first clean place from its ends (patch_place); in its middle where there is none.
/// @param plan of the job: what of the slab lies in the top is taken. @returns whether a clean place was found.
bool cut_patch_from(Job& job, std::size_t patch, const Slab& slab, const Plan& plan);

// --- Flat

/// Supports of a leaf as they stand; an added one; one moved; back to four.
void set_supports(Leaf& leaf, const std::vector<Vec2>& at);
void move_support(Leaf& leaf, const std::vector<Vec2>& standing, std::size_t support, Vec2 by);

// --- Join

/// A bow tie at a place of the top, across its grain.
void add_tie(Job& job, Vec2 uv, double thickness_mm);
/// Bow ties across one void, as many as it wants; those that are there are left. @param plan of the whole top. @returns how many came.
std::size_t tie_void(Job& job, const Plan& plan, std::size_t which);
/// A patch over one void, a little larger than it. @throws Refusal where it would run past the edge of the top.
void patch_void(Job& job, const Plan& plan, std::size_t which);
/// What is left of the top when a void is cut off with its nearer end: how much shorter it gets, and from which end (−1 left, 1 right).
struct CutOff {
    double by_mm = 0, end = 1;
};
/// Nothing where no useful top is left: half of its length or more would go.
std::optional<CutOff> cut_off(const Plan& plan, const Job& job, std::size_t which);
/// Cuts the top short of one void: the other end stays where it is on the wood. @throws Refusal where too little would be left.
void cut_void_off(Job& job, const Plan& plan, std::size_t which);
/// Cuts one end of the top further in by so much; the other stays where it is on the wood. @param end 1 right, −1 left.
void shorten(Job& job, double by_mm, double end);
/// Bow ties over every crack of the top, as many as hold it; those that are there stay. @returns how many were added.
std::size_t tie_cracks(Job& job, const Plan& plan);
void drop_tie(Job& job, std::size_t tie);
void move_tie(Job& job, std::size_t tie, Vec2 by_uv);
void turn_tie(Job& job, std::size_t tie, double degrees);
/// How far a joint stands open at a place, pushed together dry – or how far one of its edges lies from a straightedge.
/// @returns where the reading stands in the list.
std::size_t read_gap(Job& job, int joint, double u_mm, double gap_mm, EdgeRead edge);
std::size_t read_gap(Job& job, int joint, double u_mm, double gap_mm);  ///< both pushed together
/// How far both edges together are out of square at a place of a joint; nothing: not read. A reading of the gap there keeps its gap.
void read_square(Job& job, int joint, double u_mm, std::optional<double> square_mm);

// --- Under

/// Two plates a fifth in from each end and a channel inside each, to start from.
void lay_plates(Job& job);
void add_channel(Job& job, double u_mm);
/// A plate as the others are, across at `u_mm`.
void add_plate(Job& job, double u_mm);
void drop_channel(Job& job, std::size_t channel);
void drop_plate(Job& job, std::size_t plate);
/// How far a plate's corner hangs below the top; nothing: not read. @param corner 0 to 3, from the left near one the way round.
void set_plate_gap(Job& job, std::size_t plate, std::size_t corner, std::optional<double> gap_mm);
/// How far a foot hangs above the floor it stands on; nothing: not read. @param foot 0 to 3, from the left near one the way round.
void set_floor_gap(Job& job, std::size_t foot, std::optional<double> gap_mm);
/// The outline of a base of panels: a corner moved or set, one added midway along the longest side, one taken
/// away. What stood round the plates
/// becomes the maker's own. @throws Refusal for a third corner less.
void move_base_corner(Job& job, std::size_t corner, Vec2 by_uv);
void set_base_corner(Job& job, std::size_t corner, double BaseCorner::*side, double mm);
void add_base_corner(Job& job);
void drop_base_corner(Job& job, std::size_t corner);
/// How high a corner of the form stands; nothing: not read. @param corner 0 to 3, from the left near one the way round.
void set_form_corner(Job& job, std::size_t corner, std::optional<double> high_mm);
/// The shop's list of channel sections: one kept on it, one taken off, one given to a channel.
void keep_section(Shop& shop, const Channel& channel);
void drop_section(Shop& shop, const Channel& channel);
void set_section(Job& job, std::size_t channel, const ChannelSection& section);
/// A divider across a river, and one taken away. Its colour is "second" until it is named. @throws Refusal where one stands already.
void add_divider(Job& job, int river, double u_mm);
void drop_divider(Job& job, std::size_t divider);
/// A support taken from where they are `standing`.
void drop_support(Leaf& leaf, std::vector<Vec2> standing, std::size_t support);
void move_plate(Job& job, std::size_t plate, Vec2 by_uv);
void move_channel(Job& job, std::size_t channel, Vec2 by_uv);
/// Where a plate or channel lies from the end of the top that it is nearer to.
double from_end_mm(const Job& job, double u_mm);
void set_plate_from_end(Job& job, std::size_t plate, double from_end_mm);
void set_channel_from_end(Job& job, std::size_t channel, double from_end_mm);

}  // namespace yb
