#include <catch2/catch.hpp>

#include "core/ground/picture/picture.h"

using namespace yb;

namespace {
Picture checked() {
    Picture p(37, 21);
    for (int y = 0; y < p.height; ++y)
        for (int x = 0; x < p.width; ++x) {
            p.at(x, y)[0] = static_cast<std::uint8_t>(6 * x);
            p.at(x, y)[1] = static_cast<std::uint8_t>(11 * y);
            p.at(x, y)[2] = static_cast<std::uint8_t>(100 + x - y);
        }
    return p;
}
}  // namespace

TEST_CASE("PNG comes back as it went, JPEG nearly", "[picture]") {
    const Picture p = checked();
    CHECK(read_picture(to_png(p)) == p);
    const Picture j = read_picture(to_jpeg(p, 95));
    REQUIRE(j.width == 37);
    REQUIRE(j.height == 21);
    double off = 0;
    for (std::size_t i = 0; i < p.rgb.size(); ++i) off += std::abs(p.rgb[i] - j.rgb[i]) / static_cast<double>(p.rgb.size());
    CHECK(off < 6);
}

TEST_CASE("what is no picture says so", "[picture]") {
    CHECK_THROWS_WITH(read_picture(std::string("length,width\n1,2\n")), Catch::Contains("neither PNG nor JPEG"));
    CHECK_THROWS_AS(read_picture(std::string()), PictureError);
    const std::string png = to_png(checked());
    CHECK_THROWS_AS(read_picture(std::string(png.substr(0, png.size() / 2))), PictureError);
    const std::string jpeg = to_jpeg(checked());
    CHECK_THROWS_AS(read_picture(std::string(jpeg.substr(0, jpeg.size() / 2))), PictureError);
}
