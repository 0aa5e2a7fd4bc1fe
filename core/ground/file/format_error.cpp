#include "core/ground/file/format_error.h"

#include <new>

namespace yb {

std::string sentence_of(const std::exception& e) {
    const std::string what = e.what();
    if (dynamic_cast<const Told*>(&e)) return what;
    // The standard library throws the bare name of its function.
    if (dynamic_cast<const std::invalid_argument*>(&e) && what.find(' ') != std::string::npos) return what;
    if (dynamic_cast<const std::bad_alloc*>(&e)) return "there is not enough memory for this";
    return "the program made a fault in it";
}

}  // namespace yb
