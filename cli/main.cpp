// `burl`: the core from a shell. JSON on standard output with units in the key names; errors on standard
// error; exit 2 for bad input, 1 for a fault.
#include <cmath>
#include <filesystem>
#include <iostream>

#include <CLI/CLI.hpp>

#include "cli/common.h"
#include "core/files/store/store.h"

namespace {

using burl::BadInput;

/// Words, nan and infinities are no measure.
std::string finite_number(const std::string& text) {
    double v = 0;
    return CLI::detail::lexical_cast(text, v) && std::isfinite(v) ? std::string() : "‘" + text + "’ is no number that can be measured";
}

}  // namespace

int main(int argc, char** argv) {
    CLI::App app{"burl – slabs into tables, from a shell. JSON on standard output, units in the key names."};
    app.set_version_flag("--version", "burl " YB_VERSION, "what version this is");
    app.require_subcommand(1);
    int code = 0;

    burl::add_wood_verbs(app);
    burl::add_log_verbs(app);
    burl::add_job_verbs(app);
    burl::add_pour_verbs(app);
    burl::add_base_verbs(app);
    burl::add_skin_verbs(app);
    burl::add_days_verbs(app);
    burl::add_book_verbs(app);
    burl::add_shop_verbs(app, code);

    for (auto* verb : app.get_subcommands({}))
        for (auto* option : verb->get_options())
            if (option->get_type_name().rfind("FLOAT", 0) == 0) option->check(finite_number);

    try {
        app.parse(argc, argv);
        std::cout.flush();
        if (!std::cout) {
            std::cerr << "burl: standard output can't be written: the disk is full, or nobody reads\n";
            return 1;
        }
    } catch (const CLI::ParseError& e) {
        return app.exit(e) == 0 ? 0 : 2;
    } catch (const BadInput& e) {
        std::cerr << "burl: " << e.what() << '\n';
        return 2;
    } catch (const yb::FormatError& e) {
        std::cerr << "burl: " << e.what() << '\n';
        return 2;
    } catch (const std::filesystem::filesystem_error& e) {
        std::cerr << "burl: " << e.path1().string() << " can't be read or written here\n";
        return 2;
    } catch (const yb::StoreError& e) {
        std::cerr << "burl: " << e.what() << '\n';
        return 2;
    } catch (const std::invalid_argument& e) {
        std::cerr << "burl: " << yb::sentence_of(e) << '\n';
        return 2;
    } catch (const std::exception& e) {
        std::cerr << "burl: " << yb::sentence_of(e) << '\n';
        return 1;
    }
    return code;
}
