#include "core/io/digest.h"

#include <sodium.h>

namespace yb {

std::string digest_of(const std::string& bytes) {
    unsigned char out[crypto_hash_sha256_BYTES];
    crypto_hash_sha256(out, reinterpret_cast<const unsigned char*>(bytes.data()), bytes.size());
    std::string hex(2 * sizeof out + 1, '\0');
    sodium_bin2hex(hex.data(), hex.size(), out, sizeof out);
    hex.pop_back();  // its closing nought
    return hex;
}

std::string attachment_key(const std::string& bytes) { return "sha256-" + digest_of(bytes); }

}  // namespace yb
