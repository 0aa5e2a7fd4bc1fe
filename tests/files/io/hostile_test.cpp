// Files that were cut short, scribbled over or made by something else: every reader takes them or says why not, and
// throws nothing but what it documents.
#include <catch2/catch.hpp>

#include <cmath>
#include <random>

#include "core/files/io/csv.h"
#include "core/files/io/job_file.h"
#include "core/files/io/json.h"
#include "core/ground/picture/picture.h"
#include "core/material/drawing/drawing.h"
#include "core/material/scan/cloud.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "demo/demo.h"
#include "devices/probe.h"
#include "tests/everything.h"

using namespace yb;

namespace {

/// One of the things that happen to files: cut short, bytes changed, a stretch doubled or lost, numbers blown up.
std::string spoilt(const std::string& good, std::mt19937& dice) {
    std::string s = good;
    const auto at = [&] { return std::uniform_int_distribution<std::size_t>(0, s.empty() ? 0 : s.size() - 1)(dice); };
    for (int times = 1 + static_cast<int>(dice() % 3); times > 0 && !s.empty(); --times) switch (dice() % 7) {
            case 0: s.resize(at()); break;
            case 1: s[at()] = static_cast<char>(dice() % 256); break;
            case 2: s.erase(at(), 1 + dice() % 40); break;
            case 3: s.insert(at(), s.substr(at(), 1 + dice() % 60)); break;
            case 4: s.insert(at(), std::string(1 + dice() % 9, '9')); break;
            case 5: s.insert(at(), "-1e999"); break;
            default: {
                static constexpr std::string_view pieces[] = {"null", "{}", "[]", "\"\"", "nan", "\xff\xfe", "<", "&", "0", "-", "\n"};
                s.insert(at(), pieces[dice() % std::size(pieces)]);
            }
        }
    return s;
}

/// How many of the spoilt ones were still taken. Anything but FormatError fails the test.
template <class Read>
int taken(const std::string& good, int rounds, unsigned seed, Read read) {
    std::mt19937 dice(seed);
    int fine = 0;
    read(good);
    int refused = 0;
    for (int i = 0; i < rounds; ++i) {
        const std::string s = spoilt(good, dice);
        INFO("round " << i << " of seed " << seed);
        try {
            read(s);
            ++fine;
        } catch (const FormatError& e) {
            ++refused;
            CHECK_FALSE(std::string(e.what()).empty());
        } catch (const std::exception& e) {
            FAIL_CHECK("threw something else: " << e.what());
        }
    }
    // Neither is everything taken nor everything refused: or nothing was tried.
    CHECK(refused > rounds / 20);
    CHECK(fine > 0);
    return fine;
}

std::string job_text(const char* id) {
    const Documents d = demo_shop();
    const Job& job = d.jobs.at(id);
    std::vector<Slab> slabs;
    for (const std::string& s : job.slabs()) slabs.push_back(d.slabs.at(s));
    return write_job_file({job, slabs, {}, d.shop});
}

}  // namespace

TEST_CASE("spoilt job files are taken or refused with a sentence, and what is taken can be planned", "[io][hostile]") {
    for (const char* id : {"job-reading-table", "job-landing-bench"}) {
        const std::string good = job_text(id);
        const int fine = taken(good, 400, 1, [](const std::string& s) {
            const JobFile f = read_job_file(s);
            Documents d;
            d.shop = f.shop;
            for (const Slab& slab : f.slabs) d.slabs[slab.id] = slab;
            const bool whole =
                std::all_of(f.job.leaves.begin(), f.job.leaves.end(), [&](const Leaf& l) { return d.slabs.count(l.slab) > 0; });
            if (!whole) return;
            const Plan p = plan_job(f.job, d);
            CHECK(std::isfinite(p.days->end_h));
        });
        CHECK(fine > 0);
    }
}

TEST_CASE("spoilt drawings, clouds and tables are taken or refused with a sentence", "[io][hostile]") {
    const Documents d = demo_shop();
    const Slab& slab = d.slabs.at("slab-sycamore-3");
    const auto paths = drawn_slab(slab, shape_of(slab));
    const auto outline = [](const Drawing& drawing) { slab_from_drawing(drawing, drawing.mm_per_unit.value_or(1)); };
    taken(to_svg(paths, "a slab"), 600, 2, [&](const std::string& s) { outline(read_svg(s)); });
    taken(to_dxf(paths), 600, 3, [&](const std::string& s) { outline(read_dxf(s)); });
    std::vector<CloudPoint> points;
    for (int i = 0; i < 300; ++i) points.push_back({static_cast<float>(i % 20) * 50.f, static_cast<float>(i / 20) * 40.f, 50.f});
    taken(to_ply(points), 600, 4, [](const std::string& s) { read_cloud(s); });
    taken(
        "ply\nformat ascii 1.0\nelement vertex 3\nproperty float x\nproperty float y\nproperty float z\nend_header\n0 0 1\n1 0 1\n0 1 1\n",
        600, 5, [](const std::string& s) { read_cloud(s); });
    taken("# a cloud\n1 2 3\n4;5;6\n7,8,9\n", 400, 6, [](const std::string& s) { read_cloud(s); });
    taken("face,x_mm,y_mm,z_mm\ntop,0,0,50.5\nbottom,1,2,-3e-1\n", 600, 7, [](const std::string& s) { read_readings(s); });
}

TEST_CASE("a drawing that names a huge size or nests without end is no trap", "[io][hostile]") {
    std::string deep = "<svg xmlns='http://www.w3.org/2000/svg'>";
    for (int i = 0; i < 3000; ++i) deep += "<g transform='translate(1 1)'>";
    deep += "<path d='M 0 0 L 10 0 L 10 10 Z'/>";
    for (int i = 0; i < 3000; ++i) deep += "</g>";
    deep += "</svg>";
    CHECK_THROWS_AS(read_svg(deep), FormatError);
    // A header that promises more points than any machine holds.
    CHECK_THROWS_AS(read_cloud("ply\nformat binary_little_endian 1.0\nelement vertex 4000000000000\nproperty float x\nproperty float y\n"
                               "property float z\nend_header\nabc"),
                    FormatError);
    CHECK_THROWS_AS(read_cloud(""), FormatError);
    CHECK_THROWS_AS(read_job_file(std::string(100000, '[')), FormatError);
}

TEST_CASE("spoilt pictures give no picture, and never more than they hold", "[io][hostile]") {
    Picture p(40, 30);
    for (std::size_t i = 0; i < p.rgb.size(); ++i) p.rgb[i] = static_cast<std::uint8_t>(i * 7 % 251);
    for (const std::string& good : {to_png(p), to_jpeg(p)}) {
        std::mt19937 dice(8);
        for (int i = 0; i < 300; ++i) {
            const std::string s = spoilt(good, dice);
            try {
                const Picture q = read_picture(s);
                CHECK(q.rgb.size() == static_cast<std::size_t>(q.width) * static_cast<std::size_t>(q.height) * 3);
            } catch (const PictureError& e) {
                CHECK_FALSE(std::string(e.what()).empty());
            }
        }
    }
}

TEST_CASE("a gauge that talks nonsense is not understood, not obeyed", "[io][hostile]") {
    std::mt19937 dice(9);
    const std::string good = instrument_line(12.34, "mm");
    REQUIRE(good.find('*') != std::string::npos);  // it carries its check
    int taken = 0;
    int refused = 0;
    int another = 0;
    for (int i = 0; i < 2000; ++i) {
        const std::string s = spoilt(good, dice);
        const ProbeMessage m = read_probe_line(s.substr(0, s.find_first_of("\r\n")));
        if (m.kind != ProbeMessage::Kind::reading) {
            ++refused;
            CHECK_FALSE(m.words.empty());
            continue;
        }
        ++taken;
        CHECK(std::isfinite(m.value));
        // Whatever still carries a check fits it, worked out here once more; exchanged bytes get past an exclusive-or.
        const std::string line = s.substr(0, s.find_first_of("\r\n"));
        const std::size_t star = line.find('*');
        if (star == std::string::npos) continue;
        unsigned sum = 0;
        for (std::size_t k = 0; k < star; ++k) sum ^= static_cast<unsigned char>(line[k]);
        CHECK(std::stoul(line.substr(star + 1, 2), nullptr, 16) == sum);
        if (std::abs(m.value - 12.34) > 1e-9) ++another;
    }
    CHECK(taken > 20);
    CHECK(refused > 1000);
    CHECK(another <= 2000 / 50);
}
