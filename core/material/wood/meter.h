// A pin meter's booklet: what it has to be corrected by for woods other than the one it is made for.
#pragma once

#include <string>
#include <variant>
#include <vector>

#include "core/ground/fields/fields.h"
#include "core/ground/measure/measure.h"

namespace yb {

/// A line of it: moisture = (reading − offset)/slope, the reading brought to the wood's temperature first (meter_moisture()).
struct MeterWood {
    std::string species;
    double slope = 1, offset = 0;
    bool operator==(const MeterWood&) const = default;
};
void fields(FieldVisitor& v, MeterWood& w);

/// Of a species, as the booklet has it; slope 1, offset 0 where it has none.
MeterWood meter_wood(const std::vector<MeterWood>& booklet, const std::string& species);

/// Reads "hackberry 1.05 -0.3; sycamore, American 0.98": a wood, its slope, its offset where there is one, woods parted by semicolons;
/// nothing typed is no wood. A wood that is not known, told twice or without a slope between 0.2 and 5, an offset beyond 20: said, with its
/// place.
std::variant<std::vector<MeterWood>, ParseError> read_booklet(const std::string& text);
/// As it is typed.
std::string booklet_text(const std::vector<MeterWood>& booklet);

}  // namespace yb
