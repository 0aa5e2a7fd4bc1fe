#include "core/io/digest.h"

#include <fmt/format.h>
#include <sodium.h>

namespace yb {

std::string digest_of(const std::string& bytes) {
    unsigned char out[crypto_hash_sha256_BYTES];
    crypto_hash_sha256(out, reinterpret_cast<const unsigned char*>(bytes.data()), bytes.size());
    std::string hex;
    for (const unsigned char c : out) hex += fmt::format("{:02x}", c);
    return hex;
}

std::string attachment_key(const std::string& bytes) { return "sha256-" + digest_of(bytes); }

}  // namespace yb
