// Edits of what belongs to the shop.
#pragma once

#include <optional>
#include <string>
#include <vector>

namespace yb {

enum class LengthStyle;
struct Climate;
struct DayOff;
struct Documents;
struct Shop;

/// Millimetres or inches, and all that goes with them.
void other_units(Shop& shop);
void set_length_style(Shop& shop, LengthStyle style);
void other_volume_unit(Shop& shop);
void other_mass_unit(Shop& shop);
void other_temperature_unit(Shop& shop);
/// A4 or Letter.
void other_paper(Shop& shop);
void name_shop(Shop& shop, const std::string& name);
void set_shop_air(Shop& shop, const Climate& air);
/// The air where finished tops wait.
void set_store_air(Shop& shop, const Climate& air);

/// Days off that are not known yet, in their order. @returns how many came.
std::size_t add_days_off(Shop& shop, const std::vector<DayOff>& off);

/// Another resin with a key of its own, to be filled in from its label. @param like key of the class it starts from (starting_resins);
/// an unknown one is the medium casting class. @returns its key.
std::string add_resin(Shop& shop, const std::string& like = {});
/// Spaces around the name go, an empty one leaves it as it was. A resin that has gone is let be, here and below.
void name_resin(Shop& shop, const std::string& key, const std::string& name);
/// A number of a resin by the field it is declared at, `gel_25_h`.
void set_resin_number(Shop& shop, const std::string& key, const std::string& field, std::optional<double> value);
/// Takes a resin off the shelf; fillings and rivers of every job that were of it take the advice again.
void drop_resin(Documents& docs, const std::string& key);

}  // namespace yb
