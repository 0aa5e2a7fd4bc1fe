#include "core/ground/figure/part.h"

#include <charconv>

namespace yb {

std::string key_of(const Part& part) { return std::string(part.kind) + " " + std::to_string(part.index + 1); }

std::optional<Part> read_part(std::string_view key) {
    const auto blank = key.rfind(' ');
    if (blank == std::string_view::npos || blank == 0) return {};
    const std::string_view number = key.substr(blank + 1);
    std::size_t n = 0;
    const auto [end, error] = std::from_chars(number.data(), number.data() + number.size(), n);
    if (error != std::errc() || end != number.data() + number.size() || n < 1) return {};
    return Part{key.substr(0, blank), n - 1};
}

std::optional<std::size_t> index_of(std::string_view key, std::string_view kind) {
    const auto part = read_part(key);
    return part && part->kind == kind ? std::optional(part->index) : std::nullopt;
}

}  // namespace yb
