// Shops, slabs and jobs as JSON, and back. The format is written down in docs/formats.md.
//
// Every body says its version ("v"); older ones are made new on reading (upgrade.h). Reading is strict where a mistake would
// be silent: a wrong type, a missing field that has no default or a number that is not finite throws FormatError with the
// place in the document and what to put there. What is out of its range is read and kept; planning tells it. Fields that
// nobody knows are kept as they came and written back.
#pragma once

#include <string>

#include "core/files/io/fields_json.h"

namespace yb {

struct Caution;
struct Figure;
struct Job;
struct Plan;
struct Shop;
struct Slab;
struct Units;

Json to_json(const Shop& shop);
Json to_json(const Slab& slab);
Json to_json(const Job& job);

Shop shop_from_json(const Json& j);
Slab slab_from_json(const Json& j);
Job job_from_json(const Json& j);

/// A figure, caution or whole plan for the shell: values in the program's units with the unit in the key.
Json to_json(const Figure& figure, const Units& units);
Json to_json(const Caution& caution, const Units& units);
Json to_json(const Plan& plan, const Units& units);

/// @name The most a JSON text may hold (docs/formats.md).
/// @{
inline constexpr int most_json_depth = 64;
inline constexpr std::size_t most_json_values = 10000000;
/// @}

/// Parses JSON text; @throws FormatError with line and column, also for more than the limits above, before memory is asked
/// for.
Json parse_json(const std::string& text);

}  // namespace yb
