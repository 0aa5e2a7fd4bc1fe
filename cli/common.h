// What the verbs of `burl` share: bad input, JSON out, a job file read.
#pragma once

#include <iostream>
#include <stdexcept>
#include <string>

#include "core/file/format_error.h"
#include "core/io/json.h"
#include "core/job/documents.h"
#include "core/job/job.h"

namespace CLI {
class App;
}

namespace burl {

/// What the person typed or gave: exit 2.
struct BadInput : std::runtime_error {
    using std::runtime_error::runtime_error;
};

/// Bytes of a damaged file that are no text are shown as such, not thrown at.
inline void print(const yb::Json& j) { std::cout << j.dump(1, ' ', false, yb::Json::error_handler_t::replace) << '\n'; }

/// What is read of a file: what is wrong with it names it.
template <class F>
auto of_file(const std::string& path, F read) {
    try {
        return read(path);
    } catch (const yb::FormatError& e) {
        if (std::string(e.what()).rfind(path, 0) == 0) throw;
        throw yb::FormatError(path, e.what());
    }
}

/// A job file's job with its slabs and shop.
struct JobAlone {
    yb::Job job;
    yb::Documents docs;
};
/// @throws yb::FormatError.
JobAlone read_job_alone(const std::string& path);

// Verbs of their own files, added to the program.
void add_pour_verbs(CLI::App& app);  ///< cure, pour
void add_base_verbs(CLI::App& app);  ///< sag, tip, under

}  // namespace burl
