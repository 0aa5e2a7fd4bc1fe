// The corpora of the fuzz targets, and every input that once was a finding, replayed in the ordinary build.
#include <filesystem>
#include <fstream>

#include <catch2/catch.hpp>

#include "tests/fuzz/readers.h"

using namespace yb;
namespace fs = std::filesystem;

TEST_CASE("every reader takes or refuses all of its corpus", "[hostile][fuzz]") {
    for (const auto& [name, read] : fuzzed_readers()) {
        INFO(name);
        int inputs = 0;
        for (const auto& entry : fs::directory_iterator(fs::path(YB_SOURCE) / "tests/fuzz/corpus" / name)) {
            INFO(entry.path().filename().string());
            std::ifstream in(entry.path(), std::ios::binary);
            const std::string bytes{std::istreambuf_iterator<char>(in), {}};
            CHECK_NOTHROW(read(bytes));
            // Cut short anywhere it is refused or taken too.
            for (std::size_t k = 1; k < 8; ++k) CHECK_NOTHROW(read(bytes.substr(0, bytes.size() * k / 8)));
            ++inputs;
        }
        CHECK(inputs >= 3);
    }
}
