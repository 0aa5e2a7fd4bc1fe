#include "core/ground/file/csv.h"

#include <algorithm>
#include <charconv>
#include <cmath>

#include <fmt/format.h>

#include "core/ground/file/format_error.h"

namespace yb {

namespace {

constexpr std::string_view blanks = " \t";
constexpr std::string_view formula = "=+-@\t\r";
constexpr char guard = '\'';

bool begins_formula(std::string_view s) { return !s.empty() && formula.find(s.front()) != std::string_view::npos; }

/// Behind its apostrophes.
bool guarded(std::string_view s) {
    return !s.empty() && s.front() == guard && begins_formula(s.substr(std::min(s.find_first_not_of(guard), s.size())));
}

std::string_view trim(std::string_view s) {
    const auto first = s.find_first_not_of(" \t\r");
    if (first == std::string_view::npos) return {};
    return s.substr(first, s.find_last_not_of(" \t\r") - first + 1);
}

char separator_of(std::string_view text) {
    bool in_quotes = false;
    bool semicolon = false;
    for (const char c : text) {
        if (c == '"') in_quotes = !in_quotes;
        else if (in_quotes) continue;
        else if (c == '\t') return '\t';
        else if (c == ';') semicolon = true;
        else if (c == '\n') break;
    }
    return semicolon ? ';' : ',';
}

}  // namespace

std::string csv_field(const std::string& text) {
    const bool guard_it = guarded(text) || (begins_formula(text) && !number_of_cell(text, ','));
    const std::string s = guard_it ? guard + text : text;
    const bool plain = s.find_first_of(",;\t\"\r\n") == std::string::npos && s == trim(s) && (s.empty() || s.front() != '#');
    if (plain) return s;
    std::string quoted = "\"";
    for (const char c : s) quoted += c == '"' ? std::string("\"\"") : std::string(1, c);
    return quoted + "\"";
}

std::optional<double> number_of_cell(std::string_view cell, char separator) {
    std::string with_point;
    if (const auto comma = cell.find(',');
        separator != ',' && comma != std::string_view::npos && cell.find('.') == std::string_view::npos) {
        with_point = cell;
        with_point[comma] = '.';
        cell = with_point;
    }
    if (!cell.empty() && cell.front() == '+') cell.remove_prefix(1);
    double d = 0;
    const auto [end, error] = std::from_chars(cell.data(), cell.data() + cell.size(), d);
    return error == std::errc{} && end == cell.data() + cell.size() && std::isfinite(d) ? std::optional(d) : std::nullopt;
}

CsvRows::CsvRows(std::string_view text) : text_(text) {
    if (text_.substr(0, 3) == "\xEF\xBB\xBF") text_.remove_prefix(3);
    skip_empty();
    separator_ = separator_of(text_.substr(std::min(at_, text_.size())));
}

/// Past lines without a word and comments. @returns false at the end.
bool CsvRows::skip_empty() {
    while (at_ < text_.size()) {
        const auto end = text_.find('\n', at_);
        // Tabs may part empty cells: a line of tabs is a row of a pasted table, unless nothing is in it.
        const std::string_view line = trim(text_.substr(at_, end == std::string_view::npos ? end : end - at_));
        if (!line.empty() && line.front() != '#') return true;
        at_ = end == std::string_view::npos ? text_.size() : end + 1;
        ++next_line_;
    }
    return false;
}

std::string_view CsvRows::bare() {
    const char* const begin = text_.data() + at_;
    const char* const end = std::find_if(begin, text_.data() + text_.size(), [this](char c) { return c == separator_ || c == '\n'; });
    at_ += static_cast<std::size_t>(end - begin);
    return trim({begin, static_cast<std::size_t>(end - begin)});
}

std::string_view CsvRows::quoted() {
    const std::size_t begun = next_line_;
    std::string& cell = held_.emplace_back();
    for (++at_;; ++at_) {
        if (at_ >= text_.size()) throw FormatError(fmt::format("line {}", begun), "a quote begins there and never ends");
        if (text_[at_] == '\n') ++next_line_;
        if (text_[at_] != '"') cell += text_[at_];
        else if (at_ + 1 < text_.size() && text_[at_ + 1] == '"') cell += text_[at_++];
        else break;
    }
    ++at_;
    if (const std::string_view behind = bare(); !behind.empty())
        throw FormatError(
            fmt::format("line {}", next_line_),
            fmt::format("text stands behind a closing quote: ‘{}’. Double the quotes that belong to the text", behind.substr(0, 40)));
    return cell;
}

bool CsvRows::next() {
    cells_.clear();
    held_.clear();
    if (!skip_empty()) return false;
    line_ = next_line_;
    for (bool more = true; more;) {
        while (at_ < text_.size() && text_[at_] != separator_ && blanks.find(text_[at_]) != std::string_view::npos) ++at_;
        std::string_view cell = at_ < text_.size() && text_[at_] == '"' ? quoted() : bare();
        if (guarded(cell)) cell.remove_prefix(1);
        cells_.push_back(cell);
        more = at_ < text_.size() && text_[at_] == separator_;
        if (at_ < text_.size()) ++at_;
    }
    ++next_line_;
    return true;
}

}  // namespace yb
