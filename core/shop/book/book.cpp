#include "core/shop/book/book.h"

#include <algorithm>
#include <chrono>
#include <cmath>
#include <ctime>
#include <map>
#include <set>

#include <fmt/chrono.h>
#include <fmt/format.h>

#include "core/ground/calendar/calendar.h"
#include "core/ground/fields/walk.h"
#include "core/shop/job/cards.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/steps.h"

namespace yb {

namespace {
constexpr std::string_view belongs_to_card = "card ";
}

std::string local_time(std::int64_t seconds) {
    std::string at = fmt::format("{:%FT%T%z}", fmt::localtime(static_cast<std::time_t>(seconds)));
    return at.insert(at.size() - 2, ":");
}

std::string local_time_of(const std::string& utc) {
    const auto moment = utc.size() == 20 ? utc_seconds(utc) : std::nullopt;
    return moment ? local_time(static_cast<std::int64_t>(*moment)) : utc;
}

std::optional<double> moment_of(const std::string& at) {
    int hours = 0, minutes = 0;
    char sign = 0;
    if (at.size() < 25 || std::sscanf(at.c_str() + 19, "%c%2d:%2d", &sign, &hours, &minutes) != 3 || (sign != '+' && sign != '-'))
        return {};
    const auto wall = utc_seconds(at.substr(0, 19) + "Z");
    return wall ? std::optional(*wall - (sign == '+' ? 1 : -1) * (hours * 3600.0 + minutes * 60)) : std::nullopt;
}

namespace {

std::string text_of(double v) { return fmt::format("{}", v); }

/// A wall clock without an offset gets that of the moment it is written.
std::string with_offset(const std::string& wall, const std::string& now) {
    if (wall.size() != 16 || now.size() < 6 || !is_date(wall.substr(0, 10))) return now;
    return wall + ":00" + now.substr(now.size() - 6);
}

/// A decision of a plan: what is chosen, wanted, taken.
struct Decided {
    std::string value, label, unit, step;
    bool operator==(const Decided& o) const { return value == o.value; }
};

/// Every school, the wanted top and the slabs of a job, by their paths.
class Decisions : public PathVisitor {
  public:
    std::map<std::string, Decided> all;
    using PathVisitor::number;
    void number(const NumberField& f, double& v) override { size(f, v); }
    void option(const SchoolText& s, std::size_t& chosen) override {
        const std::string p = path(s.key);
        if (wanted(p)) all[p] = {s.options[chosen].label, s.label, "", step(p)};
    }
    void text(const FieldName& f, std::string& v) override {
        const std::string p = path(f.key);
        const bool slab = first(p) == "leaves" && p.ends_with(".slab");
        const bool resin = p == "fill.river" || p == "days.wanted" || p == "start";
        if (slab || resin) all[p] = {v, f.label, "", step(p)};
    }

  private:
    static std::string first(const std::string& p) { return p.substr(0, p.find_first_of(".[")); }
    static bool wanted(const std::string& p) { return first(p) != "days"; }
    void size(const NumberField& f, double v) {
        const std::string p = path(f.key);
        if (first(p) == "top")
            all[p] = {text_of(v), f.label, f.kind == Kind::length || f.kind == Kind::fine || f.kind == Kind::along ? "mm" : "", "lay"};
    }
    static std::string step(const std::string& p) {
        const std::string room = first(p);
        if (room == "top" || room == "leaves" || room == "makeup") return "lay";
        return find_step(room) ? room : std::string();
    }
};

std::map<std::string, Decided> decisions_of(const Job& job) {
    Decisions d;
    fields(d, const_cast<Job&>(job));  // this visitor only reads
    return d.all;
}

class Telling {
  public:
    Telling(const Documents& before, const Documents& after, std::string now) : before_(before), after_(after), now_(std::move(now)) {}

    std::vector<BookEntry> run() {
        static const Job nothing;
        for (const auto& [id, job] : after_.jobs) {
            const auto it = before_.jobs.find(id);
            if (it == before_.jobs.end()) {
                put({0, now_, id, "", book::change, "A job begun", job.name, "", ""});
                job_changed(id, nothing, job, false);
            } else if (!(it->second == job)) {
                job_changed(id, it->second, job, true);
            }
        }
        for (const auto& [id, job] : before_.jobs)
            if (!after_.jobs.count(id)) put({0, now_, id, "", book::change, "The job was taken away", job.name, "", ""});
        for (const auto& [id, slab] : after_.slabs) {
            const auto it = before_.slabs.find(id);
            if (it == before_.slabs.end()) slab_changed(id, {}, slab);
            else if (!(it->second == slab)) slab_changed(id, it->second, slab);
        }
        return std::move(out_);
    }

  private:
    void put(BookEntry e) { out_.push_back(std::move(e)); }

    void job_changed(const std::string& id, const Job& a, const Job& b, bool decided) {
        if (decided) {
            const auto was = decisions_of(a), is = decisions_of(b);
            for (const auto& [path, d] : is) {
                const auto it = was.find(path);
                if (it == was.end() ? d.value.empty() : it->second == d) continue;
                put({0, now_, id, d.step, book::change, d.label, d.value, d.unit, path});
            }
            for (const auto& [path, d] : was)
                if (!is.count(path)) put({0, now_, id, d.step, book::change, d.label, "", d.unit, path});
            if (a.name != b.name) put({0, now_, id, "", book::change, "Called", b.name, "", "name"});
            if (a.put_away != b.put_away) put({0, now_, id, "", book::change, b.put_away ? "Put away" : "Taken up again", b.name, "", ""});
        }
        ticks(id, a, b);
        runs(id, a, b);
        for (std::size_t i = 0; i < b.leaves.size(); ++i) {
            const std::size_t known = i < a.leaves.size() ? a.leaves[i].rounds.size() : 0;
            for (std::size_t k = known; k < b.leaves[i].rounds.size(); ++k) {
                const FlatRound& r = b.leaves[i].rounds[k];
                const std::string of = "leaf " + std::to_string(i + 1);
                const std::string at = is_date(r.on) ? with_offset(r.on + "T12:00", now_) : now_;
                for (const auto& [what, value] : {std::pair<const char*, double>{"bow", r.bow_mm},
                                                  {"cup", r.cup_mm},
                                                  {"twist", r.twist_mm},
                                                  {"thickness", r.thickness_mm}})
                    put({0, at, id, "flat", book::reading, what, text_of(value), "mm", of});
            }
        }
        if (a.notes != b.notes && !b.notes.empty()) put({0, now_, id, "", book::note, "Notes of the job", b.notes, "", ""});
        record(id, a.record, b.record);
    }

    void ticks(const std::string& id, const Job& a, const Job& b) {
        const auto of = [](const Job& j, const std::string& key) -> const OpDone* {
            for (const OpDone& d : j.days.done)
                if (d.key == key) return &d;
            return nullptr;
        };
        for (const OpDone& d : b.days.done)
            if (const OpDone* was = of(a, d.key); !was || !(*was == d))
                put({0, with_offset(d.at, now_), id, "", book::tick, d.name.empty() ? d.key : d.name, d.took_h ? text_of(*d.took_h) : "",
                     d.took_h ? "h" : "", d.key});
        for (const OpDone& d : a.days.done)
            if (!of(b, d.key))
                put({0, now_, id, "", book::correction, d.name.empty() ? d.key : d.name, "not done after all", "", "tick " + d.key});
    }

    void runs(const std::string& id, const Job& a, const Job& b) {
        for (const CardRun& run : b.runs) {
            const auto it = std::find_if(a.runs.begin(), a.runs.end(),
                                         [&](const CardRun& r) { return r.card == run.card && r.started == run.started; });
            const std::string of = std::string(belongs_to_card) + run.card;
            const std::string step = step_of_card(run.card);
            const std::size_t known_ticks = it == a.runs.end() ? 0 : it->ticks.size(),
                              known_readings = it == a.runs.end() ? 0 : it->readings.size();
            if (run.fast != 1) continue;  // practice
            for (std::size_t i = known_ticks; i < run.ticks.size(); ++i) {
                const CardTick& t = run.ticks[i];
                const std::string at = local_time_of(t.at);
                put({0, at, id, step, book::tick, t.step, text_of(std::round(t.after_s / 6) / 10), "min", of});
                if (t.air_c) put({0, at, id, step, book::reading, "air", text_of(*t.air_c), "°C", of});
                if (t.mixed_l) put({0, at, id, step, book::reading, "mixed", text_of(*t.mixed_l), "l", of});
                if (t.left_l) put({0, at, id, step, book::reading, "left over", text_of(*t.left_l), "l", of});
                if (!t.note.empty()) put({0, at, id, step, book::note, t.step, t.note, "", of});
            }
            if (run.ticks.size() < known_ticks) put({0, now_, id, step, book::correction, "the last ticks were taken back", "", "", of});
            for (std::size_t i = known_readings; i < run.readings.size(); ++i) {
                const CardReading& r = run.readings[i];
                put({0, now_, id, step, book::reading, "temperature", text_of(r.temp_c), "°C", of + fmt::format(" {:.0f} s", r.after_s)});
            }
        }
    }

    void record(const std::string& id, const Record& a, const Record& b) {
        for (std::size_t i = a.agreed.size(); i < b.agreed.size(); ++i) {
            const Agreement& g = b.agreed[i];
            for (const AgreedLine& l : g.lines) put({0, now_, id, "", book::agreement, l.key, l.says, "", g.on});
        }
        for (std::size_t i = 0; i < std::min(a.agreed.size(), b.agreed.size()); ++i)
            if (a.agreed[i].signed_as != b.agreed[i].signed_as)
                put({0, now_, id, "", book::photo, "the signed agreement", b.agreed[i].signed_as, "", b.agreed[i].on});
        for (const JobPhoto& p : b.photos)
            if (std::find(a.photos.begin(), a.photos.end(), p) == a.photos.end())
                put({0, now_, id, "", book::photo, p.about, p.key, "", p.thing});
        if (a.delivered != b.delivered) put({0, now_, id, "", book::note, "Delivered", b.delivered, "", ""});
        if (a.number != b.number && !b.number.empty()) put({0, now_, id, "", book::note, "Number in the book", b.number, "", ""});
    }

    void slab_changed(const std::string& id, const Slab& a, const Slab& b) {
        std::string job;
        for (const auto& [jid, j] : after_.jobs)
            if (job.empty() && j.uses(id)) job = jid;
        const auto read = [&](const std::optional<double>& pct, const std::string& on) {
            if (pct)
                put({0, is_date(on) ? with_offset(on + "T12:00", now_) : now_, job, "rack", book::reading, "moisture", text_of(*pct), "%",
                     "slab " + id});
        };
        std::set<std::pair<std::string, double>> known;
        for (const MoistureReading& r : a.moisture_log) known.insert({r.on, r.pct});
        if (a.moisture_pct) known.insert({a.moisture_on, *a.moisture_pct});
        for (const MoistureReading& r : b.moisture_log)
            if (known.insert({r.on, r.pct}).second) read(r.pct, r.on);
        if (b.moisture_pct && !known.count({b.moisture_on, *b.moisture_pct})) read(b.moisture_pct, b.moisture_on);
        if (a.notes != b.notes && !b.notes.empty()) put({0, now_, job, "rack", book::note, "Notes of the slab", b.notes, "", "slab " + id});
    }

    const Documents& before_;
    const Documents& after_;
    std::string now_;
    std::vector<BookEntry> out_;
};

std::string lower(std::string s) {
    for (char& c : s)
        if (c >= 'A' && c <= 'Z') c = static_cast<char>(c - 'A' + 'a');
    return s;
}

std::optional<std::int64_t> names_line(const std::string& of) {
    if (of.size() < 2 || of[0] != '#' || of.find_first_not_of("0123456789", 1) != std::string::npos || of.size() > 18) return {};
    return std::stoll(of.substr(1));
}

}  // namespace

std::vector<BookEntry> happened(const Documents& before, const Documents& after, const std::string& now) {
    return Telling(before, after, now).run();
}

BookEntry typed_entry(const std::string& text) {
    BookEntry note{0, "", "", "", book::note, "", text, "", ""};
    static constexpr std::string_view units[] = {"mm", "m",  "in", "%", "°C", "°F",  "g", "kg", "lb",
                                                 "ml", "mL", "l",  "L", "h",  "min", "s", "µm", "days"};
    if (text.find('\n') != std::string::npos) return note;
    const std::size_t last = text.rfind(' ');
    if (last == std::string::npos || last == 0) return note;
    const std::string unit = text.substr(last + 1);
    const std::size_t before = text.rfind(' ', last - 1);
    if (before == std::string::npos || before == 0 || std::find(std::begin(units), std::end(units), unit) == std::end(units)) return note;
    std::string value = text.substr(before + 1, last - before - 1);
    if (value.find_first_not_of("+-.,0123456789") != std::string::npos) return note;
    std::replace(value.begin(), value.end(), ',', '.');
    char* end = nullptr;
    const double v = std::strtod(value.c_str(), &end);
    if (value.empty() || *end != 0 || !std::isfinite(v)) return note;
    std::string what = text.substr(0, before);
    while (!what.empty() && (what.back() == ':' || what.back() == ' ')) what.pop_back();
    // A sentence that ends in a measure is one.
    if (what.empty() || std::count(what.begin(), what.end(), ' ') > 3 || what.find_first_of(".,;!?") != std::string::npos) return note;
    return {0, "", "", "", book::reading, what, text_of(v), unit, ""};
}

std::vector<BookLine> read_book(const std::vector<BookEntry>& entries) {
    std::vector<BookLine> out;
    out.reserve(entries.size());
    std::map<std::int64_t, std::size_t> at;
    for (const BookEntry& e : entries) at[e.id] = out.size(), out.push_back({e, 0});
    for (const BookEntry& e : entries) {
        if (e.kind != book::correction) continue;
        // Of a correction of a correction it is the first line that reads otherwise.
        auto line = names_line(e.of);
        std::int64_t by = e.id;
        for (int guard = 0; line && guard < 100 && *line < by; ++guard) {
            const auto it = at.find(*line);
            if (it == at.end()) break;
            out[it->second].corrected_by = e.id;
            by = *line;
            line = out[it->second].entry.kind == book::correction ? names_line(out[it->second].entry.of) : std::nullopt;
        }
    }
    // By the moment, whatever zone and clock it was written by; what can't be read stays behind the line before it.
    std::vector<std::pair<double, BookLine>> dated;
    dated.reserve(out.size());
    double last = -1e18;
    for (BookLine& l : out) dated.emplace_back(last = moment_of(l.entry.at).value_or(last), std::move(l));
    std::stable_sort(dated.begin(), dated.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
    for (std::size_t i = 0; i < dated.size(); ++i) out[i] = std::move(dated[i].second);
    return out;
}

std::vector<std::size_t> search(const std::vector<BookLine>& lines, const BookAsk& ask) {
    std::vector<std::string> words;
    std::string word;
    for (const char c : lower(ask.words) + " ") {
        if (c != ' ') word += c;
        else if (!word.empty()) words.push_back(std::move(word)), word.clear();
    }
    std::vector<std::size_t> out;
    for (std::size_t i = 0; i < lines.size(); ++i) {
        const BookEntry& e = lines[i].entry;
        if (!ask.job.empty() && e.job != ask.job) continue;
        if (!ask.kind.empty() && e.kind != ask.kind) continue;
        const std::string_view day = std::string_view(e.at).substr(0, 10);
        if (!ask.from.empty() && day < ask.from) continue;
        if (!ask.to.empty() && day > ask.to) continue;
        if (!words.empty()) {
            const std::string all =
                lower(e.at + ' ' + e.job + ' ' + e.step + ' ' + e.kind + ' ' + e.what + ' ' + e.value + ' ' + e.unit + ' ' + e.of);
            if (!std::all_of(words.begin(), words.end(), [&](const std::string& w) { return all.find(w) != std::string::npos; })) continue;
        }
        out.push_back(i);
    }
    return out;
}

BookEntry correcting(const BookEntry& wrong, const std::string& value, const std::string& why) {
    return {0,
            "",
            wrong.job,
            wrong.step,
            book::correction,
            why.empty() ? wrong.what : why,
            value,
            value.empty() ? std::string() : wrong.unit,
            "#" + std::to_string(wrong.id)};
}

std::vector<BookPoint> readings_of(const std::vector<BookLine>& lines, const std::string& what, const std::string& job,
                                   const std::string& of) {
    std::map<std::int64_t, const BookEntry*> by_id;
    for (const BookLine& l : lines) by_id[l.entry.id] = &l.entry;
    std::vector<BookPoint> out;
    for (const BookLine& l : lines) {
        const BookEntry& e = l.entry;
        if (e.kind != book::reading || e.what != what || (!job.empty() && e.job != job) || (!of.empty() && !is_of(e, of))) continue;
        const std::string& value = l.corrected_by ? by_id.at(l.corrected_by)->value : e.value;
        char* end = nullptr;
        const double v = std::strtod(value.c_str(), &end);
        if (value.empty() || *end != 0 || !std::isfinite(v)) continue;
        out.push_back({e.at, v, e.id});
    }
    // By the moment, not by the clock on the wall: it goes back in autumn, and changes with the zone. What can't be read stands first.
    std::vector<std::pair<double, BookPoint>> dated;
    dated.reserve(out.size());
    for (BookPoint& p : out) dated.emplace_back(moment_of(p.at).value_or(-1e18), std::move(p));
    std::stable_sort(dated.begin(), dated.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
    for (std::size_t i = 0; i < dated.size(); ++i) out[i] = std::move(dated[i].second);
    return out;
}

std::optional<OfCard> of_card(const std::string& of) {
    if (!std::string_view(of).starts_with(belongs_to_card)) return {};
    const auto end = std::min(of.find(' ', belongs_to_card.size()), of.size());
    return OfCard{of.substr(belongs_to_card.size(), end - belongs_to_card.size()), of.substr(end)};
}

bool is_of(const BookEntry& e, const std::string& thing) {
    return std::string_view(e.of).starts_with(thing) && (e.of.size() == thing.size() || e.of[thing.size()] == ',');
}

}  // namespace yb
