#include "core/ground/measure/words.h"

#include <utility>

namespace yb {

namespace {
Speaker& speaker() {
    static Speaker now;
    return now;
}
}  // namespace

void speak(Speaker s) { speaker() = std::move(s); }

std::string in_words(const std::string& english) { return speaker() ? speaker()(english) : english; }

}  // namespace yb
