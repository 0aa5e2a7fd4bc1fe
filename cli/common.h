// What the verbs of `burl` share: bad input, JSON out, a job file read.
#pragma once

#include <iostream>
#include <stdexcept>
#include <string>

#include "core/files/io/json.h"
#include "core/ground/file/format_error.h"

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

// The verbs, added to the program.
void add_wood_verbs(CLI::App& app);             ///< emc, movement, flatten
void add_log_verbs(CLI::App& app);              ///< grow, find, sequence
void add_job_verbs(CLI::App& app);              ///< plan, gcode, surface
void add_shop_verbs(CLI::App& app, int& code);  ///< demo, jobs, export, check, repair
void add_pour_verbs(CLI::App& app);             ///< cure, pour
void add_base_verbs(CLI::App& app);             ///< sag, tip, under
void add_skin_verbs(CLI::App& app);             ///< skin
void add_days_verbs(CLI::App& app);             ///< days
void add_book_verbs(CLI::App& app);             ///< book, money, offer, pace

}  // namespace burl
