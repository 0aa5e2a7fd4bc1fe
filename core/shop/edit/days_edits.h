// Edits of Days: what is ticked, pinned, added, wanted; whose turn comes first; when somebody works.
#pragma once

#include <string>

#include "core/steps/days/days.h"

namespace yb {

struct Documents;
struct Job;
struct Shop;

/// Hands are off it. @param at local wall clock, "2026-11-30T16:30"; empty: it is not done after all.
/// @param name what it is called.
void tick(Job& job, const std::string& key, const std::string& at, const std::string& name = {});
/// How long hands were really on something that is done; empty: worked out from the clock.
void set_took(Job& job, const std::string& key, std::optional<double> hours);
/// It does not begin before a day. @param on ISO date; empty: whenever it can.
void pin(Job& job, const std::string& key, const std::string& on);
/// How long hands are on it and it waits then, as the maker knows it; empty: as its step says.
void set_hours(Job& job, const std::string& key, std::optional<double> hands_h, std::optional<double> wait_h);
/// The air that it is done in, where the maker heats or waits for it; empty: the month's.
void set_air(Job& job, const std::string& key, std::optional<double> air_c);
/// The helper does it, or the maker again.
void give_to_helper(Job& job, const std::string& key, bool helper);
/// The same once more after it: a second leak, another coat of filler. @returns the key of what was added.
std::string again_after(Job& job, const Operation& operation, const std::string& name);
/// In two halves, the second after the first and before all that came after it; its wait goes with the second. @param next what follows it,
/// or empty.
/// @returns the key of the second.
std::string split(Job& job, const Operation& operation, const std::string& name, const std::string& next);
/// An operation of the maker's own; @returns its key, "own 1".
std::string add_own(Job& job, const OwnOp& own);
/// Takes an own operation away, with its tick and pin; those after it are called one less. Nothing happens for another key.
void drop_own(Job& job, const std::string& key);
/// @param on ISO date; empty: nobody waits for it.
void want_on(Job& job, const std::string& on);
/// The job's turn comes so many places sooner (negative) or later among those that are not put away.
void move_turn(Documents& docs, const std::string& job, int by);
/// A helper is there on a weekday, in the maker's hours of that day (of Monday where he has none), or not.
void helper_on(Shop& shop, int weekday, bool there);
/// A day on which nobody works, or on which somebody does again: of a longer stretch that day is cut out.
void day_off(Shop& shop, const std::string& on, bool off, const std::string& name = {});

}  // namespace yb
