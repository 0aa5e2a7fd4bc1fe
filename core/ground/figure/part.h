// One of several of a kind – a plate, a batch, an operation of one's own – as files, cards and tests name it: "plate 1".
#pragma once

#include <cstddef>
#include <optional>
#include <string>
#include <string_view>

namespace yb {

struct Part {
    std::string_view kind;  ///< "plate": lasts as long as what it was read from, or for ever where it is written in the program
    std::size_t index = 0;  ///< from 0
    bool operator==(const Part&) const = default;
};

/// Its name: the kind, a blank and its number, counted from 1.
std::string key_of(const Part& part);
/// The part a name stands for; nothing for what is none: no number behind the last blank, or one below 1.
std::optional<Part> read_part(std::string_view key);
/// The number, from 0, of a part of that kind; nothing for any other name.
std::optional<std::size_t> index_of(std::string_view key, std::string_view kind);

}  // namespace yb
