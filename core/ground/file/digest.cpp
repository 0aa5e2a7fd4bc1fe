#include "core/ground/file/digest.h"

#include <array>
#include <cstdint>

#include <sodium.h>

namespace yb {
namespace {

template <std::size_t n>
std::string hex(const std::array<unsigned char, n>& bytes) {
    std::string out(2 * n + 1, '\0');
    sodium_bin2hex(out.data(), out.size(), bytes.data(), n);
    out.pop_back();  // its closing nought
    return out;
}

const unsigned char* raw(std::string_view s) { return reinterpret_cast<const unsigned char*>(s.data()); }

}  // namespace

std::string digest_of(const std::string& bytes) {
    std::array<unsigned char, crypto_hash_sha256_BYTES> out{};
    crypto_hash_sha256(out.data(), raw(bytes), bytes.size());
    return hex(out);
}

std::string attachment_key(const std::string& bytes) { return "sha256-" + digest_of(bytes); }

bool is_content_key(const std::string& key) { return key.rfind("sha256-", 0) == 0; }

std::string seal_of(std::initializer_list<std::string_view> parts) {
    crypto_generichash_state state;
    crypto_generichash_init(&state, nullptr, 0, crypto_generichash_BYTES);
    for (const std::string_view part : parts) {
        std::array<unsigned char, 8> length{};
        for (std::size_t i = 0; i < 8; ++i) length[i] = static_cast<unsigned char>(static_cast<std::uint64_t>(part.size()) >> (8 * i));
        crypto_generichash_update(&state, length.data(), length.size());
        crypto_generichash_update(&state, raw(part), part.size());
    }
    std::array<unsigned char, crypto_generichash_BYTES> out{};
    crypto_generichash_final(&state, out.data(), out.size());
    return hex(out);
}

}  // namespace yb
