// Edits of a job's money and record by name.
#pragma once

#include <optional>
#include <string>
#include <variant>

#include "core/shop/record/choices.h"
#include "core/steps/money/choices.h"

namespace yb {

struct Documents;
struct Job;

/// The maker's hour, the margin and a bought base for this job alone; empty: as the shop has it, no price.
void set_job_hour(Job& job, std::optional<double> hour);
void set_job_margin(Job& job, std::optional<double> pct);
void set_base_price(Job& job, std::optional<double> price);
void set_not_included(Job& job, const std::string& text);
/// Puts something else that is paid on the list; one of the same name is replaced, none of it (amount 0) takes it off.
void set_extra(Job& job, const ExtraCost& extra);
/// Reads "glass; 1; 120": what, how many, each. A comma may be the decimal point; a currency sign is refused. @returns a sentence where it
/// can't be read.
std::variant<ExtraCost, std::string> read_extra(const std::string& typed);

/// Keeps what was agreed, of a day.
void agree(Job& job, const Agreement& agreement);
/// The scan or photograph of the signed agreement, of the last one. Nothing where nothing was agreed.
void sign_agreement(Job& job, const std::string& key);
/// A photograph of the job; the same picture is kept once.
void add_photo(Job& job, const JobPhoto& photo);
/// Gives a job its number in the book, the year and the next in it: "2026-03"; one that is there stays.
void give_number(Documents& docs, const std::string& job, const std::string& year);
/// Delivered on a day, ISO: it gets its number, and its slabs are used up. Empty: not delivered after all, its slabs are there again.
void deliver(Documents& docs, const std::string& job, const std::string& on);

}  // namespace yb
