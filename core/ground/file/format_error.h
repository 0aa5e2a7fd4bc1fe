// What a reader throws when bytes from outside can't be read.
#pragma once

#include <stdexcept>
#include <string>

namespace yb {

/// A document that can't be read: `where` is a path such as `slab.tape.stations[3].left_mm`.
class FormatError : public std::runtime_error {
  public:
    FormatError(std::string where, const std::string& what)
        : std::runtime_error(where.empty() ? what : where + ": " + what), where_(std::move(where)) {}
    explicit FormatError(const std::string& what) : FormatError(std::string(), what) {}
    const std::string& where() const { return where_; }

  private:
    std::string where_;
};

}  // namespace yb
