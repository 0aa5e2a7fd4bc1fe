// A job in a file of its own, for sending to somebody else and for the shell. Its format: docs/formats.md.
#pragma once

#include <functional>
#include <map>
#include <optional>
#include <string>
#include <vector>

#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"

namespace yb {

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
/// Takes a job that was sent into a shop. A slab or job of that name that differs stays; the newcomer gets a name of its own. A
/// picture that is not the one kept under its name here gets the name of its own bytes.
/// @param kept the bytes under a key, where there are any. @param[out] pictures key and bytes, to be attached before.
/// @returns the job's id. @throws FormatError for a picture that is no base64.
std::string take_job_file(Documents& docs, JobFile file, const std::function<std::optional<std::string>(const std::string& key)>& kept,
                          std::vector<std::pair<std::string, std::string>>& pictures);
/// Bytes of a picture in a job file. @throws FormatError for what is no base64.
std::string from_base64(const std::string& text);

/// @throws FormatError naming the line for broken JSON, the path for a wrong field.
JobFile read_job_file(const std::string& text);

}  // namespace yb
