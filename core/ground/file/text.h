// Text from outside becomes UTF-8 at the door: what is kept, shown and written is text that every file of ours takes.
#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/ground/file/format_error.h"

namespace yb {

/// A code page that text from outside may be written in.
struct CodePage {
    const char* name;   ///< as iconv knows it, "WINDOWS-1252"
    const char* where;  ///< where such files come from, in words
};
/// Those that are asked for where a file does not say its own, the likeliest first.
const std::vector<CodePage>& code_pages();

/// Thrown where the bytes of a text fit several code pages and nothing says which.
class UnknownCodePage : public FormatError {
  public:
    struct Reading {
        CodePage page;
        std::string sample;  ///< the first line with such letters, as that page reads it, 80 letters at most
    };
    explicit UnknownCodePage(std::vector<Reading> readings);
    /// One for each of code_pages() that can be; no two read alike.
    const std::vector<Reading>& readings() const { return readings_; }

  private:
    std::vector<Reading> readings_;
};

/// What bytes say as UTF-8: by their byte order mark, or as UTF-8 where they are valid; else by `page`. Lines end in \n; control characters
/// but tab become blanks.
/// @param page as iconv names it; empty: not known. @throws UnknownCodePage where it is wanted; FormatError where the bytes are no text (a
/// character of nothing stands in it) or don't fit `page`.
std::string text_of(std::string_view bytes, const std::string& page = {});

/// A file's text. @throws as read_file() and text_of() do.
std::string read_text(const std::string& path, std::uint64_t most_bytes, const std::string& page = {});

/// True for valid UTF-8 (RFC 3629: nothing overlong, no surrogates).
bool is_utf8(std::string_view bytes);
/// Without what no file of ours keeps: bytes that are no UTF-8 become U+FFFD, control characters but tab and line break blanks.
std::string plain_text(std::string_view text);

}  // namespace yb
