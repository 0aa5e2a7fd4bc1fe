// Files from outside, read whole: nothing is asked of memory that the file does not hold.
#pragma once

#include <cstdint>
#include <string>

namespace yb {

/// @name The most bytes a file of each kind may have (docs/formats.md).
/// @{
inline constexpr std::uint64_t most_json_bytes = std::uint64_t{512} << 20;
inline constexpr std::uint64_t most_drawing_bytes = std::uint64_t{64} << 20;
inline constexpr std::uint64_t most_csv_bytes = std::uint64_t{64} << 20;
inline constexpr std::uint64_t most_picture_bytes = std::uint64_t{128} << 20;
inline constexpr std::uint64_t most_cloud_bytes = std::uint64_t{1} << 30;
/// @}

/// A file's bytes. Pipes are read too, while something comes at least every ten seconds; folders and devices are refused.
/// A file that grows meanwhile is read as far as it went when it was opened.
/// @throws FormatError with the path and what to do about it.
std::string read_file(const std::string& path, std::uint64_t most_bytes);

}  // namespace yb
