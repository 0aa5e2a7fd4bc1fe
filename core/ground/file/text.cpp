#include "core/ground/file/text.h"

#include <algorithm>
#include <cerrno>
#include <memory>

#include <fmt/format.h>
#include <iconv.h>

#include "core/ground/file/file.h"

namespace yb {

namespace {

/// How many bytes the character at the beginning has; 0 where it is none. Source: RFC 3629, section 4.
std::size_t character(std::string_view s) {
    const auto at = [&](std::size_t i) { return i < s.size() ? static_cast<unsigned char>(s[i]) : 0U; };
    const auto tail = [&](std::size_t i) { return (at(i) & 0xC0U) == 0x80U; };
    const unsigned c = at(0);
    if (c < 0x80) return 1;
    if (c >= 0xC2 && c <= 0xDF) return tail(1) ? 2 : 0;
    if (c >= 0xE0 && c <= 0xEF) {
        const bool second = tail(1) && !(c == 0xE0 && at(1) < 0xA0) && !(c == 0xED && at(1) > 0x9F);
        return second && tail(2) ? 3 : 0;
    }
    if (c >= 0xF0 && c <= 0xF4) {
        const bool second = tail(1) && !(c == 0xF0 && at(1) < 0x90) && !(c == 0xF4 && at(1) > 0x8F);
        return second && tail(2) && tail(3) ? 4 : 0;
    }
    return 0;
}

/// Of a character as UTF-8: C0, delete or C1 (U+0080 to U+009F).
bool is_control(std::string_view c) {
    const auto first = static_cast<unsigned char>(c.front());
    return first < 0x20 || first == 0x7F || (first == 0xC2 && c.size() > 1 && static_cast<unsigned char>(c[1]) < 0xA0);
}

/// @returns nothing where the bytes don't fit the page.
std::optional<std::string> converted(std::string_view bytes, const char* page) {
    const auto close = [](iconv_t* c) { iconv_close(*c), delete c; };
    const iconv_t opened = iconv_open("UTF-8", page);
    if (opened == reinterpret_cast<iconv_t>(-1))
        throw FormatError(fmt::format("the code page {} is not known on this machine: save the file as UTF-8", page));
    const std::unique_ptr<iconv_t, decltype(close)> hold(new iconv_t(opened), close);
    std::string in(bytes);
    std::string out(bytes.size() * 3 + 16, '\0');
    char* from = in.data();
    char* to = out.data();
    std::size_t left = in.size();
    std::size_t room = out.size();
    if (iconv(opened, &from, &left, &to, &room) == static_cast<std::size_t>(-1)) return {};
    out.resize(out.size() - room);
    return out;
}

/// The first line that holds more than ASCII, cut to a length that can be shown.
std::string_view telling_line(std::string_view bytes) {
    const auto odd = std::find_if(bytes.begin(), bytes.end(), [](char c) { return static_cast<unsigned char>(c) >= 0x80; });
    const auto at = static_cast<std::size_t>(odd - bytes.begin());
    const auto before = at == 0 ? std::string_view::npos : bytes.find_last_of("\r\n", at - 1);
    std::size_t from = before == std::string_view::npos ? 0 : before + 1;
    if (at - from > 40) from = at - 40;
    return bytes.substr(from, std::min<std::size_t>(80, bytes.find_first_of("\r\n", at) - from));
}

constexpr std::string_view byte_order_mark = "\xEF\xBB\xBF";

/// Of valid UTF-8: no byte order mark, line ends as \n, control characters but tab as blanks.
std::string tidied(std::string_view text) {
    while (text.substr(0, 3) == byte_order_mark) text.remove_prefix(3);
    std::string out;
    out.reserve(text.size());
    while (!text.empty()) {
        const std::string_view c = text.substr(0, std::max<std::size_t>(character(text), 1));
        text.remove_prefix(c.size());
        if (c == "\r") {
            if (text.empty() || text.front() != '\n') out += '\n';
        } else if (is_control(c) && c != "\t" && c != "\n") {
            out += ' ';
        } else {
            out += c;
        }
    }
    return out;
}

std::optional<std::string> by_mark(std::string_view bytes) {
    static constexpr std::pair<std::string_view, const char*> marks[] = {
        {{"\xFF\xFE\0\0", 4}, "UTF-32LE"}, {{"\0\0\xFE\xFF", 4}, "UTF-32BE"}, {"\xFF\xFE", "UTF-16LE"}, {"\xFE\xFF", "UTF-16BE"}};
    for (const auto& [mark, page] : marks) {
        if (bytes.substr(0, mark.size()) != mark) continue;
        auto read = converted(bytes.substr(mark.size()), page);
        if (!read) throw FormatError(fmt::format("its first bytes say {}, and it is not: it was cut short or is damaged", page));
        return read;
    }
    return {};
}

}  // namespace

const std::vector<CodePage>& code_pages() {
    static const std::vector<CodePage> all{{"WINDOWS-1252", "western Europe, most spreadsheets"},
                                           {"MACINTOSH", "older office programs on a Mac"},
                                           {"WINDOWS-1250", "central Europe"},
                                           {"IBM850", "old programs of a PC"},
                                           {"WINDOWS-1251", "Cyrillic"}};
    return all;
}

UnknownCodePage::UnknownCodePage(std::vector<Reading> readings)
    : FormatError(
          fmt::format("the letters beyond a to z can't be told: the file is not in UTF-8 and does not say its code page{}. Save it as "
                      "UTF-8 and try again",
                      readings.empty() ? "" : fmt::format(" (‘{}’ as read by {})", readings.front().sample, readings.front().page.name))),
      readings_(std::move(readings)) {}

bool is_utf8(std::string_view bytes) {
    while (!bytes.empty()) {
        const std::size_t n = character(bytes);
        if (n == 0) return false;
        bytes.remove_prefix(n);
    }
    return true;
}

std::string plain_text(std::string_view text) {
    std::string valid;
    for (std::string_view rest = text; !rest.empty();) {
        const std::size_t n = character(rest);
        if (n == 0) valid += "\xEF\xBF\xBD";
        else valid += rest.substr(0, n);
        rest.remove_prefix(std::max<std::size_t>(n, 1));
    }
    return tidied(valid);
}

std::string text_of(std::string_view bytes, const std::string& page) {
    if (auto read = by_mark(bytes)) return tidied(*read);
    if (const auto nothing = bytes.find('\0'); nothing != std::string_view::npos)
        throw FormatError(fmt::format("not a text file: byte {} is zero. Choose another file, or save it as UTF-8", nothing + 1));
    if (is_utf8(bytes)) return tidied(bytes);
    if (!page.empty()) {
        auto read = converted(bytes, page.c_str());
        if (!read) throw FormatError(fmt::format("it is not written in {}: some of its bytes are no letters there", page));
        return tidied(*read);
    }
    std::vector<UnknownCodePage::Reading> readings;
    for (const CodePage& p : code_pages()) {
        if (!converted(bytes, p.name)) continue;
        const std::string sample = tidied(converted(telling_line(bytes), p.name).value_or(""));
        if (std::none_of(readings.begin(), readings.end(), [&](const auto& r) { return r.sample == sample; }))
            readings.push_back({p, sample});
    }
    throw UnknownCodePage(std::move(readings));
}

std::string read_text(const std::string& path, std::uint64_t most_bytes, const std::string& page) {
    return text_of(read_file(path, most_bytes), page);
}

}  // namespace yb
