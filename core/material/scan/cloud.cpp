#include "core/material/scan/cloud.h"

#include <algorithm>
#include <bit>
#include <charconv>
#include <cmath>
#include <cstring>
#include <limits>
#include <optional>
#include <sstream>

#include <fmt/format.h>

namespace yb {
namespace {

static_assert(std::endian::native == std::endian::little, "PLY is read as little-endian");

struct Property {
    std::string name;
    int size = 4;
    char kind = 'f';  ///< i, u or f
};

int size_of(const std::string& type) {
    if (type == "char" || type == "uchar" || type == "int8" || type == "uint8") return 1;
    if (type == "short" || type == "ushort" || type == "int16" || type == "uint16") return 2;
    if (type == "double" || type == "float64") return 8;
    if (type == "float" || type == "float32" || type == "int" || type == "uint" || type == "int32" || type == "uint32") return 4;
    throw FormatError("PLY: ‘" + type + "’ is no type of a property");
}

struct Header {
    bool binary = false;
    std::size_t count = 0, body = 0;
    std::vector<Property> properties;
};

Header read_header(const std::string& bytes) {
    Header h;
    std::size_t at = 0;
    bool in_vertex = false;
    bool vertex_first = true;
    bool format = false;
    for (int line_number = 1;; ++line_number) {
        const std::size_t end = bytes.find('\n', at);
        if (end == std::string::npos || line_number > 1000)
            throw FormatError("PLY: the heading has no end_header; the file is cut short or no PLY");
        std::istringstream line(bytes.substr(at, end - at));
        at = end + 1;
        std::string word;
        line >> word;
        if (word == "format") {
            std::string kind;
            line >> kind;
            if (kind != "ascii" && kind != "binary_little_endian")
                throw FormatError("PLY: the format ‘" + kind + "’ is not read; save it as ascii or binary_little_endian");
            h.binary = kind != "ascii";
            format = true;
        } else if (word == "element") {
            std::string name;
            std::size_t n = 0;
            if (!(line >> name >> n)) throw FormatError(fmt::format("PLY: line {} of the heading names no element and count", line_number));
            in_vertex = name == "vertex";
            if (in_vertex) h.count = n;
            else if (h.properties.empty()) vertex_first = n == 0;
        } else if (word == "property" && in_vertex) {
            std::string type;
            std::string name;
            line >> type >> name;
            if (type == "list") throw FormatError("PLY: a point has a list among its properties; save the points alone");
            const char kind = type[0] == 'f' || type[0] == 'd' ? 'f' : type[0] == 'u' ? 'u' : 'i';
            h.properties.push_back({name, size_of(type), kind});
        } else if (word == "end_header") {
            break;
        }
    }
    if (!format) throw FormatError("PLY: the heading does not say its format");
    if (!vertex_first) throw FormatError("PLY: other things stand before the points; save the points alone");
    h.body = at;
    return h;
}

struct Places {
    std::size_t offset[3] = {}, index[3] = {}, stride = 0;
    int size[3] = {};
};

Places places_of(const Header& h) {
    Places p;
    bool found[3] = {};
    for (std::size_t i = 0; i < h.properties.size(); ++i) {
        for (int k = 0; k < 3; ++k)
            if (h.properties[i].name == std::string(1, static_cast<char>('x' + k))) {
                if (h.properties[i].kind != 'f') throw FormatError("PLY: x, y and z have to be float or double");
                found[k] = true;
                p.offset[k] = p.stride;
                p.index[k] = i;
                p.size[k] = h.properties[i].size;
            }
        p.stride += static_cast<std::size_t>(h.properties[i].size);
    }
    if (!found[0] || !found[1] || !found[2]) throw FormatError("PLY: the points have no x, y and z");
    return p;
}

void add(Cloud& c, float x, float y, float z) {
    if (std::abs(x) > farthest_point || std::abs(y) > farthest_point || std::abs(z) > farthest_point) {
        if (std::isfinite(x) && std::isfinite(y) && std::isfinite(z))
            throw FormatError(fmt::format("point {}: {}, {}, {} is no place on a slab. The file is damaged or no scan of one",
                                          c.points.size() + c.not_numbers + 1, x, y, z));
    }
    if (std::isfinite(x) && std::isfinite(y) && std::isfinite(z)) c.points.push_back({x, y, z});
    else ++c.not_numbers;
}

Cloud read_binary(const std::string& bytes, const Header& h, const Work& work) {
    const Places p = places_of(h);
    const std::size_t there = (bytes.size() - h.body) / std::max<std::size_t>(1, p.stride);
    if (there < h.count)
        throw FormatError(fmt::format("PLY: {} points are promised and {} are there; the file is cut short", h.count, there));
    Cloud c;
    c.points.reserve(h.count);
    const char* at = bytes.data() + h.body;
    for (std::size_t i = 0; i < h.count; ++i, at += p.stride) {
        if (i % 500000 == 0) work.check();
        float v[3];
        for (int k = 0; k < 3; ++k) {
            if (p.size[k] == 4) {
                std::memcpy(&v[k], at + p.offset[k], 4);
            } else {
                double d = 0;
                std::memcpy(&d, at + p.offset[k], 8);
                v[k] = static_cast<float>(d);
            }
        }
        add(c, v[0], v[1], v[2]);
    }
    return c;
}

/// Numbers of one line; `nan` and `inf` count as numbers here.
class Line {
  public:
    Line(const char* from, const char* to) : at_(from), end_(to) {}
    std::optional<float> next() {
        while (at_ < end_ && (*at_ == ' ' || *at_ == '\t' || *at_ == ',' || *at_ == ';' || *at_ == '\r')) ++at_;
        if (at_ == end_) return {};
        float v = 0;
        const char* start = *at_ == '+' ? at_ + 1 : at_;
        const auto [p, error] = std::from_chars(start, end_, v);
        if (error == std::errc::result_out_of_range) v = too_large(start, p) ? std::numeric_limits<float>::max() : 0;
        else if (error != std::errc() || (p < end_ && *p != ' ' && *p != '\t' && *p != ',' && *p != ';' && *p != '\r')) {
            bad_ = true;
            return {};
        }
        at_ = p;
        return v;
    }
    bool bad() const { return bad_; }
    std::string word() const {
        const char* e = at_;
        while (e < end_ && *e != ' ' && *e != '\t' && *e != ',' && *e != ';' && e - at_ < 20) ++e;
        return {at_, e};
    }

  private:
    /// Of a number that no float holds: far too large, or as good as nought.
    static bool too_large(const char* from, const char* to) {
        double d = 0;
        const auto error = std::from_chars(from, to, d).ec;
        if (error == std::errc()) return std::abs(d) > 1;
        const char* e = std::find_if(from, to, [](char c) { return c == 'e' || c == 'E'; });
        return e == to || e + 1 == to || e[1] != '-';
    }
    const char *at_, *end_;
    bool bad_ = false;
};

Cloud read_lines(const std::string& bytes, std::size_t from, std::size_t promised, const Places& places, bool ply, const Work& work) {
    Cloud c;
    c.points.reserve(std::min(promised ? promised : bytes.size() / 30, bytes.size() / 5));  // a line has five bytes at least
    std::size_t line_number =
        ply ? static_cast<std::size_t>(std::count(bytes.begin(), bytes.begin() + static_cast<std::ptrdiff_t>(from), '\n')) : 0;
    std::size_t read = 0;
    const std::size_t columns = std::max({places.index[0], places.index[1], places.index[2]}) + 1;
    for (std::size_t at = from; at < bytes.size() && (!ply || read < promised);) {
        const std::size_t found = bytes.find('\n', at);
        const std::size_t end = found == std::string::npos ? bytes.size() : found;
        ++line_number;
        if (line_number % 200000 == 0) work.check();
        const char first = bytes[at];
        const bool heading = !ply && (first == '#' || first == '/' ||
                                      (((first | 32) >= 'a' && (first | 32) <= 'z') && (first | 32) != 'n' && (first | 32) != 'i'));
        bool blank = true;
        for (std::size_t i = at; i < end && blank; ++i) blank = bytes[i] == ' ' || bytes[i] == '\t' || bytes[i] == '\r';
        if (!heading && !blank) {
            Line line(bytes.data() + at, bytes.data() + end);
            float v[3] = {};
            for (std::size_t k = 0; k < columns; ++k) {
                const auto n = line.next();
                if (!n)
                    throw FormatError(line.bad() ? fmt::format("line {}: ‘{}’ is not a number", line_number, line.word())
                                                 : fmt::format("line {}: {} numbers are wanted, {} are here", line_number, columns, k));
                for (int m = 0; m < 3; ++m)
                    if (places.index[m] == k) v[m] = *n;
            }
            add(c, v[0], v[1], v[2]);
            ++read;
        }
        at = end + 1;
    }
    if (ply && read < promised)
        throw FormatError(fmt::format("PLY: {} points are promised and {} are there; the file is cut short", promised, read));
    return c;
}

}  // namespace

Cloud read_cloud(const std::string& bytes, const Work& work) {
    Cloud c;
    if (bytes.rfind("ply", 0) == 0 && bytes.size() > 3 && (bytes[3] == '\n' || bytes[3] == '\r')) {
        const Header h = read_header(bytes);
        c = h.binary ? read_binary(bytes, h, work) : read_lines(bytes, h.body, h.count, places_of(h), true, work);
    } else {
        Places xyz;
        xyz.index[1] = 1, xyz.index[2] = 2;
        c = read_lines(bytes, 0, 0, xyz, false, work);
    }
    if (c.points.empty()) throw FormatError("there are no points in it");
    return c;
}

std::string to_ply(const std::vector<CloudPoint>& points) {
    std::string out = fmt::format(
        "ply\nformat binary_little_endian 1.0\nelement vertex {}\nproperty float x\nproperty float y\nproperty float z\nend_header\n",
        points.size());
    const std::size_t head = out.size();
    out.resize(head + points.size() * 12);
    for (std::size_t i = 0; i < points.size(); ++i) {
        const float v[3] = {points[i].x, points[i].y, points[i].z};
        std::memcpy(out.data() + head + i * 12, v, 12);
    }
    return out;
}

}  // namespace yb
