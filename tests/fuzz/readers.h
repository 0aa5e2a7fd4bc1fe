// Every reader of the program, as something that bytes can be thrown at.
#pragma once

#include <map>
#include <string>

namespace yb {

/// What reads, by its name. It returns for whatever the reader takes or refuses with a sentence; anything else – another
/// exception, a document that does not read back as it was written – is thrown on as a fault.
const std::map<std::string, void (*)(const std::string&)>& fuzzed_readers();

}  // namespace yb
