#include "core/ground/picture/picture.h"

#include <cstring>
#include <memory>

#include <fmt/format.h>
#include <png.h>
#include <turbojpeg.h>

namespace yb {

std::string to_png(const Picture& p) {
    png_image image{};
    image.version = PNG_IMAGE_VERSION;
    image.width = static_cast<png_uint_32>(p.width);
    image.height = static_cast<png_uint_32>(p.height);
    image.format = PNG_FORMAT_RGB;
    image.flags = PNG_IMAGE_FLAG_FAST;
    png_alloc_size_t size = PNG_IMAGE_PNG_SIZE_MAX(image);
    std::string out(size, '\0');
    if (!png_image_write_to_memory(&image, out.data(), &size, 0, p.rgb.data(), 0, nullptr))
        throw PictureError("the picture can't be written as PNG");
    out.resize(size);
    return out;
}

std::string to_jpeg(const Picture& p, int quality) {
    const std::unique_ptr<void, int (*)(void*)> jpeg(tjInitCompress(), tjDestroy);
    unsigned char* bytes = nullptr;
    unsigned long size = 0;
    if (tjCompress2(jpeg.get(), p.rgb.data(), p.width, 0, p.height, TJPF_RGB, &bytes, &size, TJSAMP_420, quality, 0) != 0)
        throw PictureError("the picture can't be written as JPEG");
    std::string out(reinterpret_cast<const char*>(bytes), size);
    tjFree(bytes);
    return out;
}

namespace {

/// Before memory is asked for. @param packed how many points a byte of the file can hold at most.
Picture room_for(double w, double h, std::size_t bytes, double packed) {
    if (w < 1 || h < 1) throw PictureError("the picture has no points");
    if (w * h > most_picture_points)
        throw PictureError(
            fmt::format("the picture says it has {:.0f} x {:.0f} points, more than {:.0f} million. Make it smaller and try again", w, h,
                        most_picture_points / 1e6));
    if (w * h > packed * static_cast<double>(bytes))
        throw PictureError(fmt::format("the picture says it has {:.0f} x {:.0f} points, and is cut short after {} bytes", w, h, bytes));
    return {static_cast<int>(w), static_cast<int>(h)};
}

Picture read_png(std::span<const char> bytes) {
    png_image image{};
    image.version = PNG_IMAGE_VERSION;
    if (!png_image_begin_read_from_memory(&image, bytes.data(), bytes.size()))
        throw PictureError("the PNG can't be read: it is damaged or none");
    image.format = PNG_FORMAT_RGB;
    const std::unique_ptr<png_image, void (*)(png_image*)> freed(&image, png_image_free);
    // Deflate packs 1032 bytes into one at the most, of 8 points each.
    Picture p = room_for(image.width, image.height, bytes.size(), 8 * 1032);
    const png_color white{255, 255, 255};
    if (!png_image_finish_read(&image, &white, p.rgb.data(), 0, nullptr))
        throw PictureError("the PNG can't be read to its end: it was cut short or is damaged");
    return p;
}

Picture read_jpeg(std::span<const char> bytes) {
    const std::unique_ptr<void, int (*)(void*)> jpeg(tjInitDecompress(), tjDestroy);
    const auto* data = reinterpret_cast<const unsigned char*>(bytes.data());
    int w = 0;
    int h = 0;
    int sampling = 0;
    int space = 0;
    if (tjDecompressHeader3(jpeg.get(), data, bytes.size(), &w, &h, &sampling, &space) != 0)
        throw PictureError("the JPEG can't be read: it is damaged or none");
    // A block of 16 x 16 takes two bits at the least.
    Picture p = room_for(w, h, bytes.size(), 16 * 16 * 4);
    if (tjDecompress2(jpeg.get(), data, bytes.size(), p.rgb.data(), w, 0, h, TJPF_RGB, TJFLAG_STOPONWARNING) != 0)
        throw PictureError("the JPEG can't be read to its end: it was cut short or is damaged");
    return p;
}

}  // namespace

Picture read_picture(std::span<const char> bytes) {
    const auto begins = [&](const char* magic, std::size_t n) { return bytes.size() > n && std::memcmp(bytes.data(), magic, n) == 0; };
    if (begins("\x89PNG\r\n", 6)) return read_png(bytes);
    if (begins("\xff\xd8\xff", 3)) return read_jpeg(bytes);
    throw PictureError("this is neither PNG nor JPEG");
}

}  // namespace yb
