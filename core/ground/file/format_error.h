// What a reader throws when bytes from outside can't be read.
#pragma once

#include <stdexcept>
#include <string>

namespace yb {

/// Its what() is a sentence for whoever works with the program.
struct Told : std::runtime_error {
    using std::runtime_error::runtime_error;
};

/// What an exception says to whoever works with the program: the sentence of one of ours (Told, std::invalid_argument); of any other that
/// it is a fault of the program's, since the text of a library helps nobody at a bench.
std::string sentence_of(const std::exception& e);

/// A document that can't be read: `where` is a path such as `slab.tape.stations[3].left_mm`.
class FormatError : public Told {
  public:
    FormatError(std::string where, const std::string& what) : Told(where.empty() ? what : where + ": " + what), where_(std::move(where)) {}
    explicit FormatError(const std::string& what) : FormatError(std::string(), what) {}
    const std::string& where() const { return where_; }

  private:
    std::string where_;
};

}  // namespace yb
