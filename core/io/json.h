// Shops, slabs and jobs as JSON, and back. The format is written down in docs/formats.md.
//
// Reading is strict where a mistake would be silent: a wrong type, a missing field that has no default or a
// number that is not finite throws FormatError with the place in the document and what to put there. Fields
// it does not know are left alone and ignored.
#pragma once

#include <string>

#include <nlohmann/json.hpp>

#include "core/io/format_error.h"
#include "core/job/job.h"

namespace yb {

using Json = nlohmann::ordered_json;

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

/// A job with its slabs, their pictures and the shop's settings in one document, for sending to somebody else.
struct JobFile {
    Job job;
    std::vector<Slab> slabs;                      ///< in order of the leaves, each once
    std::map<std::string, std::string> pictures;  ///< under the keys that the slabs name, base64
    Shop shop;
};
std::string write_job_file(const JobFile& file);

/// @throws FormatError naming the line for broken JSON, the path for a wrong field.
JobFile read_job_file(const std::string& text);

/// Parses JSON text; @throws FormatError with line and column.
Json parse_json(const std::string& text);

}  // namespace yb
