#include "core/files/store/pages.h"

#include <algorithm>
#include <filesystem>
#include <fstream>
#include <optional>
#include <string_view>

namespace yb {
namespace {

std::uint64_t big_endian(std::string_view s) {
    std::uint64_t v = 0;
    for (const char c : s) v = v << 8 | static_cast<unsigned char>(c);
    return v;
}

/// Of one to nine bytes; `at` goes on behind it. Nothing where the text ends before.
std::optional<std::uint64_t> varint(std::string_view s, std::size_t& at) {
    std::uint64_t v = 0;
    for (int i = 0; i < 9; ++i) {
        if (at >= s.size()) return {};
        const auto c = static_cast<unsigned char>(s[at++]);
        if (i == 8) return v << 8 | c;
        v = v << 7 | (c & 0x7FU);
        if (c < 0x80) return v;
    }
    return v;
}

std::optional<RawRow> columns_of(std::string_view payload) {
    std::size_t at = 0;
    const auto header = varint(payload, at);
    if (!header || *header > payload.size()) return {};
    std::size_t value = static_cast<std::size_t>(*header);
    RawRow row;
    while (at < *header) {
        const auto type = varint(payload, at);
        if (!type || row.size() > 32) return {};
        static constexpr std::size_t sizes[] = {0, 1, 2, 3, 4, 6, 8, 8, 0, 0, 0, 0};
        const std::size_t n = *type < 12 ? sizes[*type] : static_cast<std::size_t>((*type - 12) / 2);
        if (n > payload.size() - value) return {};
        const std::string_view bytes = payload.substr(value, n);
        value += n;
        if (*type >= 12) row.emplace_back(bytes);
        else if (*type == 0) row.emplace_back();
        else if (*type == 8 || *type == 9) row.push_back(*type == 8 ? "0" : "1");
        else if (*type <= 6) {
            const auto raw = big_endian(bytes);
            const unsigned spare = 64 - 8 * static_cast<unsigned>(n);
            row.push_back(std::to_string(static_cast<std::int64_t>(raw << spare) >> spare));
        } else return {};
    }
    return row;
}

class Pages {
  public:
    explicit Pages(const std::string& path) : in_(path, std::ios::binary) {
        std::error_code e;
        size_ = std::filesystem::file_size(path, e);
        std::string head(100, '\0');
        in_.read(head.data(), 100);
        const auto said = static_cast<std::size_t>(big_endian(std::string_view(head).substr(16, 2)));
        page_ = said == 1 ? 65536 : said;
        if (page_ < 512 || (page_ & (page_ - 1)) != 0) page_ = 4096;  // what is written here
    }
    std::size_t count() const { return static_cast<std::size_t>(size_ / page_); }
    std::size_t usable() const { return page_; }

    std::string page(std::size_t number) {
        std::string bytes(page_, '\0');
        in_.clear();
        in_.seekg(static_cast<std::streamoff>((number - 1) * page_));
        in_.read(bytes.data(), static_cast<std::streamsize>(page_));
        if (!in_) bytes.clear();
        return bytes;
    }

    std::optional<std::string> payload(const std::string& leaf, std::size_t at, std::uint64_t size) {
        if (size > size_) return {};
        const std::uint64_t most = usable() - 35;
        std::uint64_t here = size;
        if (size > most) {
            const std::uint64_t least = (usable() - 12) * 32 / 255 - 23;
            const std::uint64_t k = least + (size - least) % (usable() - 4);
            here = k <= most ? k : least;
        }
        if (at + here + (here < size ? 4 : 0) > leaf.size()) return {};
        std::string out = leaf.substr(at, static_cast<std::size_t>(here));
        if (here == size) return out;
        std::uint64_t next = big_endian(std::string_view(leaf).substr(at + static_cast<std::size_t>(here), 4));
        while (out.size() < size) {
            if (next < 1 || next > count()) return {};
            const std::string over = page(static_cast<std::size_t>(next));
            if (over.empty()) return {};
            next = big_endian(std::string_view(over).substr(0, 4));
            out.append(over, 4, std::min<std::size_t>(usable() - 4, static_cast<std::size_t>(size) - out.size()));
        }
        return out;
    }

  private:
    std::ifstream in_;
    std::uintmax_t size_ = 0;
    std::size_t page_ = 4096;
};

}  // namespace

void for_rows_on_pages(const std::string& path, const std::function<void(std::int64_t, const RawRow&)>& one) {
    Pages pages(path);
    for (std::size_t number = 1; number <= pages.count(); ++number) {
        const std::string page = pages.page(number);
        const std::size_t begin = number == 1 ? 100 : 0;             // the file's own header
        if (page.size() < begin + 8 || page[begin] != 13) continue;  // a leaf of a table
        const auto cells = static_cast<std::size_t>(big_endian(std::string_view(page).substr(begin + 3, 2)));
        for (std::size_t i = 0; i < cells && begin + 10 + 2 * i <= page.size(); ++i) {
            auto at = static_cast<std::size_t>(big_endian(std::string_view(page).substr(begin + 8 + 2 * i, 2)));
            const auto size = varint(page, at);
            const auto id = size ? varint(page, at) : std::nullopt;
            if (!id) continue;
            const auto bytes = pages.payload(page, at, *size);
            if (!bytes) continue;
            if (const auto row = columns_of(*bytes)) one(static_cast<std::int64_t>(*id), *row);
        }
    }
}

}  // namespace yb
