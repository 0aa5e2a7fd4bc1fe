// Bodies of older programs made new: a chain of JSON-to-JSON steps, one a version. Each has a kept example in tests/data/.
#pragma once

#include <nlohmann/json.hpp>

namespace yb {

enum class Body { shop, slab, job };

/// The version that this program writes.
int version_of(Body kind);

/// Which version a body is of. Bodies written before they said so are told by what is in them.
/// @param root what paths begin with. @throws FormatError for a "v" that is no whole number above 0.
int version_in(Body kind, const nlohmann::ordered_json& body, const std::string& root);

/// The body as this program's version has it; one of a later version stays as it is.
nlohmann::ordered_json upgraded(Body kind, nlohmann::ordered_json body, const std::string& root);

}  // namespace yb
