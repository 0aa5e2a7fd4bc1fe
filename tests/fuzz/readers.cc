#include "tests/fuzz/readers.h"

#include <algorithm>
#include <cmath>
#include <filesystem>
#include <fstream>
#include <optional>
#include <stdexcept>

#include <unistd.h>

#include "core/files/io/book_io.h"
#include "core/files/io/csv.h"
#include "core/files/io/days_off.h"
#include "core/files/io/job_file.h"
#include "core/files/io/json.h"
#include "core/files/io/stock_list.h"
#include "core/files/store/check.h"
#include "core/files/store/store.h"
#include "core/ground/file/csv.h"
#include "core/ground/file/text.h"
#include "core/ground/measure/measure.h"
#include "core/ground/picture/picture.h"
#include "core/material/drawing/drawing.h"
#include "core/material/scan/cloud.h"
#include "core/material/scan/scan.h"
#include "core/material/slab/slab.h"
#include "core/material/wood/meter.h"
#include "core/shop/book/plots.h"
#include "core/shop/edit/money_edits.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/shop/job/shop.h"
#include "core/shop/templates/templates.h"
#include "demo/demo.h"
#include "devices/probe.h"
#include "tests/fuzz/hand.h"

namespace yb {
namespace {

/// Runs a reader; a refusal with a sentence is as good as a document.
template <class F>
void refusing(F f) {
    try {
        f();
    } catch (const FormatError& e) {
        if (std::string(e.what()).empty()) throw std::logic_error("a refusal without a sentence");
    } catch (const StoreError& e) {
        if (std::string(e.what()).empty()) throw std::logic_error("a refusal without a sentence");
    }
}

/// What was read is written and read again: it has to be the same.
template <class T>
void round_trip(const std::string& bytes, T (*read)(const Json&)) {
    std::optional<T> once;
    refusing([&] { once = read(parse_json(bytes)); });
    if (!once) return;
    std::string text;
    try {
        text = to_json(*once).dump();
    } catch (const Json::type_error&) {
        return;  // text that is not UTF-8 can't come out of JSON: it was refused by the parser
    }
    if (!(read(parse_json(text)) == *once)) throw std::logic_error("it does not read back as it was written");
}

void job(const std::string& bytes) { round_trip<Job>(bytes, job_from_json); }
void slab(const std::string& bytes) {
    round_trip<Slab>(bytes, slab_from_json);
    refusing([&] { shape_of(slab_from_json(parse_json(bytes))); });
}
void shop(const std::string& bytes) { round_trip<Shop>(bytes, shop_from_json); }

/// Numbers all through, in JSON and in the words of it.
void all_numbers(const Json& j) {
    if (j.is_number_float() && !std::isfinite(j.get<double>())) throw std::logic_error("a figure is no number");
    if (j.is_string()) {
        const std::string& words = j.get_ref<const std::string&>();
        for (const char* wrong : {" nan", " inf ", "-nan"})
            if (words.find(wrong) != std::string::npos) throw std::logic_error("a sentence has no number: " + words);
    }
    if (j.is_structured())
        for (const Json& part : j) all_numbers(part);
}

void plan(const std::string& bytes) {
    std::optional<JobFile> f;
    refusing([&] { f = read_job_file(bytes); });
    if (!f) return;
    Documents docs;
    std::vector<std::pair<std::string, std::string>> pictures;
    std::string id;
    refusing([&] {
        id = take_job_file(
            docs, *f, [](const std::string&) { return std::nullopt; }, pictures);
    });
    if (id.empty()) return;
    // Large grids are for the tests: here many plans are made.
    for (const auto& [key, s] : docs.slabs)
        if (s.heights_a.gap_mm.size() > 400 || s.tape.stations.size() > 40) return;
    all_numbers(to_json(plan_job(docs.jobs.at(id), docs), docs.shop.units));
}

void csv(const std::string& bytes) {
    refusing([&] { read_readings(bytes); });
    refusing([&] { read_points(bytes); });
    refusing([&] { read_air(bytes); });
    refusing([&] {
        // What is read is written as cells and read again: they have to be the same.
        const auto rows = split_table(bytes);
        for (const auto& row : rows) {
            std::string line = "first";
            for (const std::string& cell : row) line += ',' + csv_field(cell);
            const auto again = split_table("a,b\n" + line + "\n");
            if (again.size() != 2 || !std::equal(row.begin(), row.end(), again[1].begin() + 1, again[1].end()))
                throw std::logic_error("cells do not read back as they were written");
        }
    });
}

/// Bytes through the door: whatever comes in is text that our files take.
void text(const std::string& bytes) {
    const auto kept = [](const std::string& t) {
        if (!is_utf8(t) || t.find('\0') != std::string::npos || text_of(t) != t || plain_text(t) != t)
            throw std::logic_error("not text that can be kept");
    };
    kept(plain_text(bytes));
    refusing([&] { kept(text_of(bytes)); });
    for (const CodePage& page : code_pages()) refusing([&] { kept(text_of(bytes, page.name)); });
}

void list(const std::string& bytes) {
    refusing([&] {
        for (const Slab& s : read_stock_list(text_of(bytes, "WINDOWS-1252"), Units::metric()))
            if (!(slab_from_json(parse_json(to_json(s).dump())) == s))
                throw std::logic_error("a slab of a list is not kept as it was read");
    });
}

void calendar(const std::string& bytes) {
    refusing([&] {
        const DaysOffRead read = read_days_off(text_of(bytes, "WINDOWS-1252"), {"2026-11-30", 20});
        for (const DayOff& d : read.off)
            if (!is_date(d.from) || (!d.to.empty() && (!is_date(d.to) || d.to < d.from)) || !is_utf8(d.name))
                throw std::logic_error("a day off that is none");
        if (read.off.size() > 4000) throw std::logic_error("more days off than are taken");
    });
}

void drawing(const std::string& bytes, Drawing (*read)(const std::string&, const Work&)) {
    refusing([&] {
        const Drawing d = read(bytes, {});
        to_svg(d.paths, "title");
        to_dxf(d.paths);
        slab_from_drawing(d, d.mm_per_unit.value_or(1));
    });
}
void svg(const std::string& bytes) { drawing(bytes, read_svg); }
void dxf(const std::string& bytes) { drawing(bytes, read_dxf); }

void cloud(const std::string& bytes) {
    refusing([&] {
        const Cloud c = read_cloud(bytes);
        if (c.points.size() < 5000) slab_from_scan(c);
    });
}

void picture(const std::string& bytes) {
    refusing([&] {
        const Picture p = read_picture(bytes);
        if (p.rgb.size() != static_cast<std::size_t>(p.width) * static_cast<std::size_t>(p.height) * 3)
            throw std::logic_error("a picture of another size than it says");
    });
}

void lengths(const std::string& bytes) {
    for (const Kind kind : {Kind::length, Kind::fine, Kind::along, Kind::volume, Kind::mass, Kind::temperature, Kind::percent, Kind::hours,
                            Kind::angle, Kind::area})
        for (const bool metric : {true, false}) {
            const Units u = metric ? Units::metric() : Units::imperial();
            const auto read = parse(bytes, kind, u);
            if (const double* v = std::get_if<double>(&read)) {
                if (!std::isfinite(*v)) throw std::logic_error("a length that is no number");
                const auto again = parse(edit_text({*v, kind}, u), kind, u);
                if (!std::get_if<double>(&again) || std::abs(*std::get_if<double>(&again) - *v) > 1e-8 * std::max(1.0, std::abs(*v)))
                    throw std::logic_error("it does not read back as it was written");
            }
        }
}

void gauge(const std::string& bytes) {
    ProbeReader reader;
    for (std::size_t at = 0; at < bytes.size(); at += 7)
        for (const ProbeMessage& m : reader.take(std::string_view(bytes).substr(at, 7)))
            if (!std::isfinite(m.value)) throw std::logic_error("a reading that is no number");
}

/// A book as CSV: read, followed, searched, drawn, written and read again.
void book_of(const std::string& bytes) {
    std::optional<std::vector<BookEntry>> once;
    refusing([&] { once = read_book_csv(bytes); });
    if (!once) return;
    const auto again = read_book_csv(book_csv(*once));
    if (!(again == *once)) throw std::logic_error("it does not read back as it was written");
    const auto lines = read_book(*once);
    search(lines, {bytes.substr(0, 12), "", "", "", ""});
    readings_of(lines, "moisture");
    static const Documents demo = demo_shop();
    for (const auto& [key, label] : book_plots()) {
        const BookPlot p = plot_of(key, lines, demo, "job-outflow-side", nullptr);
        for (const PlotLine& l : p.lines)
            for (const auto& [x, y] : l.points)
                if (!std::isfinite(x) || !std::isfinite(y)) throw std::logic_error("a point that is no number");
    }
}

/// What is typed into lines of book, money and shop.
void typed(const std::string& bytes) {
    const BookEntry e = typed_entry(bytes);
    if (e.kind == book::note ? e.value != bytes : e.what.empty() || e.unit.empty()) throw std::logic_error("something typed is lost");
    const auto woods = read_booklet(bytes);
    if (const auto* w = std::get_if<std::vector<MeterWood>>(&woods)) {
        const auto again = read_booklet(booklet_text(*w));
        if (!std::holds_alternative<std::vector<MeterWood>>(again) || std::get<0>(again) != *w)
            throw std::logic_error("it does not read back as it was written");
    }
    const auto extra = read_extra(bytes);
    if (const auto* x = std::get_if<ExtraCost>(&extra); x && !std::isfinite(x->amount * x->price.value_or(0)))
        throw std::logic_error("a sum that is no number");
    moment_of(bytes);
}

void store(const std::string& bytes) {
    const std::string path = "/dev/shm/yb-fuzz-" + std::to_string(::getpid()) + ".shop";
    const std::string out = path + ".out";
    const auto clear = [&] {
        std::error_code e;
        for (const char* tail : {"", "-wal", "-shm", "-journal"})
            std::filesystem::remove(path + tail, e), std::filesystem::remove(out + tail, e);
        std::filesystem::remove_all(backup_folder(path), e);
    };
    clear();
    std::ofstream(path, std::ios::binary) << bytes;
    refusing([&] { check_shop(path); });
    refusing([&] {
        repair_shop(path, out);
        if (!check_shop(out).ok) throw std::logic_error("a repaired shop is damaged");
    });
    refusing([&] {
        Store s = Store::open(path);
        s.history();
        s.book();
        if (s.can_undo() && !s.read_only()) s.undo();
        if (s.can_redo() && !s.read_only()) s.redo();
    });
    clear();
}

/// No reader, but thrown at likewise: a hand's edits, each planned, told, and drawn 1:1.
void hand(const std::string& bytes) {
    play(bytes, [](const Documents& docs, const std::string& id, const Plan& plan) {
        const auto job = docs.jobs.find(id);
        if (job == docs.jobs.end()) return;
        all_numbers(to_json(plan, docs.shop.units));
        if (!plan.drawable()) return;
        for (const TemplateRow& row : templates()) to_svg(row.draw({plan, &job->second, docs.shop}), row.label);
    });
}

}  // namespace

const std::map<std::string, void (*)(const std::string&)>& fuzzed_readers() {
    static const std::map<std::string, void (*)(const std::string&)> all{
        {"job", job},         {"slab", slab},         {"shop", shop},    {"plan", plan},   {"csv", csv},     {"text", text},
        {"list", list},       {"calendar", calendar}, {"svg", svg},      {"dxf", dxf},     {"cloud", cloud}, {"picture", picture},
        {"lengths", lengths}, {"gauge", gauge},       {"book", book_of}, {"typed", typed}, {"store", store}, {"hand", hand}};
    return all;
}

}  // namespace yb
