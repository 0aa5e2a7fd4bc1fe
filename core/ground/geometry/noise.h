// Smooth noise as a pure function of the place and a seed, the same on every thread and machine.
#pragma once

#include <algorithm>
#include <cmath>
#include <cstdint>

namespace yb {

/// 0 to 1 from three whole numbers.
inline double hash01(std::int32_t x, std::int32_t y, std::uint32_t seed) {
    std::uint32_t h = static_cast<std::uint32_t>(x) * 0x8da6b343U ^ static_cast<std::uint32_t>(y) * 0xd8163841U ^ seed * 0xcb1ab31fU;
    h ^= h >> 13;
    h *= 0x5bd1e995U;
    h ^= h >> 15;
    h *= 0x27d4eb2dU;
    h ^= h >> 14;
    return static_cast<double>(h & 0xffffffU) * (1.0 / 0xffffffU);
}

/// floor() for values that fit a whole number: in line, where the library is called.
inline double floored(double v) {
    const auto i = static_cast<std::int64_t>(v);
    return static_cast<double>(i - (v < static_cast<double>(i)));
}

inline double eased(double t) { return t * t * (3 - 2 * t); }

/// Value noise between −1 and 1, wavelength about 1 in each argument.
inline double noise(double x, double y, std::uint32_t seed) {
    const double fx = floored(x);
    const double fy = floored(y);
    const auto ix = static_cast<std::int32_t>(fx);
    const auto iy = static_cast<std::int32_t>(fy);
    const double tx = eased(x - fx);
    const double ty = eased(y - fy);
    const double low = hash01(ix, iy, seed) * (1 - tx) + hash01(ix + 1, iy, seed) * tx;
    const double high = hash01(ix, iy + 1, seed) * (1 - tx) + hash01(ix + 1, iy + 1, seed) * tx;
    return 2 * (low * (1 - ty) + high * ty) - 1;
}

/// The same in three arguments.
inline double noise3(double x, double y, double z, std::uint32_t seed) {
    const double fz = floored(z);
    const auto iz = static_cast<std::int32_t>(fz);
    const double t = eased(z - fz);
    const auto layer = [seed](std::int32_t k) { return seed + static_cast<std::uint32_t>(k) * 0x9E3779B1U; };
    return noise(x, y, layer(iz)) * (1 - t) + noise(x, y, layer(iz + 1)) * t;
}

/// noise3() for a walk along a row: the corners of the cell are kept while the walk stays in it. The same
/// values, much faster.
class NoiseWalk {
  public:
    double at(double x, double y, double z, std::uint32_t seed) {
        const double fx = floored(x);
        const double fy = floored(y);
        const double fz = floored(z);
        if (fx != fx_ || fy != fy_ || fz != fz_) {
            fx_ = fx, fy_ = fy, fz_ = fz;
            const auto ix = static_cast<std::int32_t>(fx);
            const auto iy = static_cast<std::int32_t>(fy);
            const auto iz = static_cast<std::int32_t>(fz);
            for (int k = 0; k < 8; ++k)
                corner_[k] = hash01(ix + (k & 1), iy + (k >> 1 & 1), seed + static_cast<std::uint32_t>(iz + (k >> 2)) * 0x9E3779B1U);
        }
        const double tx = eased(x - fx);
        const double ty = eased(y - fy);
        const double tz = eased(z - fz);
        const auto plane = [&](const double* c) {
            const double low = c[0] * (1 - tx) + c[1] * tx;
            const double high = c[2] * (1 - tx) + c[3] * tx;
            return 2 * (low * (1 - ty) + high * ty) - 1;
        };
        return plane(corner_) * (1 - tz) + plane(corner_ + 4) * tz;
    }

  private:
    double fx_ = 1e300, fy_ = 0, fz_ = 0;
    double corner_[8] = {};
};

/// Two octaves of it.
inline double noise2(double x, double y, std::uint32_t seed) { return 0.67 * noise(x, y, seed) + 0.33 * noise(2 * x, 2 * y, seed + 101); }

/// A stream of random numbers made from a seed and a name, so that adding one thing does not change another.
class Dice {
  public:
    Dice(std::uint64_t seed, std::uint32_t what) : state_(seed * 0x9E3779B97F4A7C15ULL + what * 0xD1B54A32D192ED03ULL) {}
    /// 0 to 1 (SplitMix64).
    double roll() {
        std::uint64_t z = (state_ += 0x9E3779B97F4A7C15ULL);
        z = (z ^ (z >> 30)) * 0xBF58476D1CE4E5B9ULL;
        z = (z ^ (z >> 27)) * 0x94D049BB133111EBULL;
        z ^= z >> 31;
        return static_cast<double>(z >> 11) * 0x1.0p-53;
    }
    double between(double low, double high) { return low + (high - low) * roll(); }
    /// Normal with mean 0 and the given deviation (Box and Muller).
    double normal(double sigma) {
        const double u = std::max(1e-12, roll());
        return sigma * std::sqrt(-2 * std::log(u)) * std::cos(6.283185307179586 * roll());
    }

  private:
    std::uint64_t state_;
};

}  // namespace yb
