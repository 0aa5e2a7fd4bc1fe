// A fuzz target: the reader that YB_READER names. A fault ends the process, which is how a finding is told.
#include <cstddef>
#include <cstdint>

#include "tests/fuzz/readers.h"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* bytes, std::size_t size) {
    static const auto read = yb::fuzzed_readers().at(YB_READER);
    read(std::string(reinterpret_cast<const char*>(bytes), size));
    return 0;
}
