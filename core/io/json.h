// Shops, slabs and jobs as JSON, and back. The format is written down in docs/formats.md.
//
// Every body says its version ("v"); older ones are made new on reading (upgrade.h). Reading is strict where a mistake would
// be silent: a wrong type, a missing field that has no default or a number that is not finite throws FormatError with the
// place in the document and what to put there. What is out of its range is read and kept; planning tells it. Fields that
// nobody knows are kept as they came and written back.
#pragma once

#include <functional>
#include <map>
#include <optional>
#include <string>
#include <vector>

#include "core/io/fields_json.h"
#include "core/job/job.h"

namespace yb {

struct Plan;

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

/// A job of a shop with all that it takes along. @param attachment the bytes under a key, where there are any.
/// @throws std::out_of_range for a job that is not there.
JobFile job_file(const Documents& docs, const std::string& job,
                 const std::function<std::optional<std::string>(const std::string& key)>& attachment);
/// Bytes of a picture in a job file. @throws FormatError for what is no base64.
std::string from_base64(const std::string& text);

/// @throws FormatError naming the line for broken JSON, the path for a wrong field.
JobFile read_job_file(const std::string& text);

/// Parses JSON text; @throws FormatError with line and column.
Json parse_json(const std::string& text);

}  // namespace yb
