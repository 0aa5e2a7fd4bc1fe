// Checksums of what is kept, and the names that bytes are kept under.
#pragma once

#include <string>

namespace yb {

/// SHA-256 (FIPS 180-4) of bytes, 64 hex digits.
std::string digest_of(const std::string& bytes);
/// The key of bytes by their hash: `sha256-<64 hex digits>`.
std::string attachment_key(const std::string& bytes);

}  // namespace yb
