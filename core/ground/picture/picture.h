// Pictures as plain pixels, and their way to and from PNG and JPEG (libpng, libjpeg-turbo).
#pragma once

#include <cstdint>
#include <span>
#include <stdexcept>
#include <string>
#include <vector>

#include "core/ground/file/format_error.h"

namespace yb {

/// RGB, 8 bits a channel, rows from the top.
struct Picture {
    int width = 0, height = 0;
    std::vector<std::uint8_t> rgb;  ///< 3 · width · height

    Picture() = default;
    Picture(int w, int h) : width(w), height(h), rgb(static_cast<std::size_t>(w) * static_cast<std::size_t>(h) * 3) {}
    bool empty() const { return rgb.empty(); }
    std::uint8_t* at(int x, int y) {
        return &rgb[(static_cast<std::size_t>(y) * static_cast<std::size_t>(width) + static_cast<std::size_t>(x)) * 3];
    }
    const std::uint8_t* at(int x, int y) const { return const_cast<Picture*>(this)->at(x, y); }
    bool operator==(const Picture&) const = default;
};

/// Why bytes are not a picture, in one sentence.
struct PictureError : FormatError {
    using FormatError::FormatError;
};

std::string to_png(const Picture& picture);
/// @param quality 1 to 100
std::string to_jpeg(const Picture& picture, int quality = 85);

/// The most points a picture may have, across times high.
inline constexpr double most_picture_points = 120e6;

/// Reads PNG or JPEG, told apart by their first bytes. @throws PictureError, also for one that claims more than
/// most_picture_points, or more than its bytes could hold, before memory is asked for.
Picture read_picture(std::span<const char> bytes);

}  // namespace yb
