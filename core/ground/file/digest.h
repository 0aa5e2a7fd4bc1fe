// Checksums: what is kept or named by its content is found changed by them.
#pragma once

#include <initializer_list>
#include <string>
#include <string_view>

namespace yb {

/// SHA-256 (FIPS 180-4) of bytes, as 64 lower-case hexadecimal digits.
std::string digest_of(const std::string& bytes);

/// The key new attachments are kept under: "sha256-" and the digest of their bytes.
std::string attachment_key(const std::string& bytes);
/// True for such a key; others name what can be made again.
bool is_content_key(const std::string& key);

/// The checksum of a row of a shop file: BLAKE2b-256 (RFC 7693) over its parts, each behind its length (8 bytes, the least
/// first), as 64 lower-case hexadecimal digits.
std::string seal_of(std::initializer_list<std::string_view> parts);

}  // namespace yb
