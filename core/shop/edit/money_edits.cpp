#include "core/shop/edit/money_edits.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <cstdio>
#include <vector>

#include <fmt/format.h>

#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"

namespace yb {

void set_job_hour(Job& job, std::optional<double> hour) { job.money.hour = hour; }
void set_job_margin(Job& job, std::optional<double> pct) { job.money.margin_pct = pct; }
void set_base_price(Job& job, std::optional<double> price) { job.money.base_price = price; }
void set_not_included(Job& job, const std::string& text) { job.money.not_included = text; }

void set_extra(Job& job, const ExtraCost& extra) {
    auto& all = job.money.extra;
    const auto it = std::find_if(all.begin(), all.end(), [&](const ExtraCost& e) { return e.what == extra.what; });
    if (!(extra.amount > 0)) {
        if (it != all.end()) all.erase(it);
    } else if (it != all.end()) {
        *it = extra;
    } else {
        all.push_back(extra);
    }
}

namespace {

std::string trimmed(std::string s) {
    const auto blank = [](char c) { return c == ' ' || c == '\t'; };
    while (!s.empty() && blank(s.back())) s.pop_back();
    s.erase(s.begin(), std::find_if_not(s.begin(), s.end(), blank));
    return s;
}

std::optional<double> number_of(std::string s) {
    s = trimmed(std::move(s));
    std::replace(s.begin(), s.end(), ',', '.');
    double v = 0;
    const auto [end, e] = std::from_chars(s.data(), s.data() + s.size(), v);
    if (e != std::errc() || end != s.data() + s.size() || s.empty() || !std::isfinite(v)) return {};
    return v;
}

}  // namespace

std::variant<ExtraCost, std::string> read_extra(const std::string& typed) {
    std::vector<std::string> parts{""};
    for (const char c : typed) {
        if (c == ';') parts.emplace_back();
        else parts.back() += c;
    }
    ExtraCost out;
    out.what = trimmed(parts[0]);
    if (out.what.empty()) return std::string("What else is paid begins with what it is: write it as “glass; 1; 120”.");
    if (parts.size() > 3)
        return std::string("Three things stand in it, parted by semicolons: what, how many, each. Write it as “glass; 1; 120”.");
    if (parts.size() > 1) {
        const auto n = number_of(parts[1]);
        if (!n || *n < 0 || *n > 1e6) return "‘" + trimmed(parts[1]) + "’ is no number of pieces: write how many, 0 takes it off the list.";
        out.amount = *n;
    }
    if (parts.size() > 2) {
        const auto price = number_of(parts[2]);
        if (!price) return "‘" + trimmed(parts[2]) + "’ is no price: write the number alone, without a currency sign.";
        if (*price < 0 || *price > 1e7)
            return "A price of " + trimmed(parts[2]) + " can't be: it is 0 or more. What comes off is taken off the list.";
        out.price = *price;
    }
    return out;
}

void agree(Job& job, const Agreement& agreement) { job.record.agreed.push_back(agreement); }

void sign_agreement(Job& job, const std::string& key) {
    if (!job.record.agreed.empty()) job.record.agreed.back().signed_as = key;
}

void add_photo(Job& job, const JobPhoto& photo) {
    auto& all = job.record.photos;
    if (std::none_of(all.begin(), all.end(), [&](const JobPhoto& p) { return p.key == photo.key; })) all.push_back(photo);
}

void give_number(Documents& docs, const std::string& id, const std::string& year) {
    std::string& number = docs.jobs.at(id).record.number;
    if (!number.empty()) return;
    int last = 0;
    for (const auto& [other, j] : docs.jobs)
        if (int of = 0, n = 0; std::sscanf(j.record.number.c_str(), "%6d-%6d", &of, &n) == 2 && std::to_string(of) == year)
            last = std::max(last, n);
    number = fmt::format("{}-{:02}", year, last + 1);
}

void deliver(Documents& docs, const std::string& id, const std::string& on) {
    Job& job = docs.jobs.at(id);
    job.record.delivered = on;
    if (!on.empty()) give_number(docs, id, on.substr(0, 4));
    for (const std::string& s : job.slabs())
        if (const auto it = docs.slabs.find(s); it != docs.slabs.end()) it->second.retired = !on.empty();
}

}  // namespace yb
