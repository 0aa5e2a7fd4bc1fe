// Structs with declared fields (core/ground/fields) as JSON and back.
#pragma once

#include <nlohmann/json.hpp>

#include "core/ground/fields/walk.h"
#include "core/ground/file/format_error.h"

namespace yb {

using Json = nlohmann::ordered_json;

/// Every field that has a value, in the order declared.
Json write_fields(const FieldWalk& walk);
/// Reads what is there; fields that are missing keep their defaults. What is out of its range is read as it is.
/// @param root what paths begin with, `job`. @throws FormatError for a wrong type, a required field that is missing, a whole
/// number that is none or beyond what can be counted.
void read_fields(const Json& from, const std::string& root, const FieldWalk& into);

/// The fields that have a value, as write_fields() has them but with null for lists of numbers and of points: for
/// left_over().
Json known_fields(const FieldWalk& walk);
/// What of `body` is not in what is written back, null where nothing is left over: fields of a newer program.
Json left_over(const Json& body, const Json& written);
/// Puts it back; what is written stands above it.
void put_back(Json& written, const Json& left_over);

}  // namespace yb
