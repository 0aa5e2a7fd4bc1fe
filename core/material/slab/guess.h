// What lies between height readings: the likeliest height at any place of a face, and how sure that is.
//
// Universal kriging (Cressie 1993, ch. 3): a plane by generalised least squares, on it a smooth field of Matérn covariance
// (ν = 5/2), longer along the slab than across, and the noise of a reading. Range, shape and noise are those of a row of
// candidates that make the readings likeliest (restricted likelihood). Lengths in mm.
#pragma once

#include <memory>
#include <span>

#include "core/ground/geometry/geometry.h"
#include "core/material/slab/slab.h"

namespace yb {

class Guess {
  public:
    /// @throws std::invalid_argument for fewer than four readings, readings in one line, or one that is not a number.
    explicit Guess(std::span<const Vec3> readings);
    struct At {
        double mm = 0;        ///< likeliest
        double sigma_mm = 0;  ///< standard deviation of what is truly there, reading noise not counted
    };
    At at(Vec2 p) const;
    double noise_mm() const;

    /// The most readings that are taken into account: of more every so many-th is.
    static constexpr std::size_t most = 500;

  private:
    struct Solved;
    double along_ = 0, across_ = 0;
    std::shared_ptr<const Solved> solved_;
};

/// Half the width of the band that holds the truth nine times in ten, in standard deviations.
inline constexpr double nine_in_ten = 1.645;

/// The same of a face's grid, heights up from the face (gaps are negative); kept for the grids that were asked about last.
/// Nothing where there are too few readings to say.
std::shared_ptr<const Guess> guess_of(const HeightGrid& grid);

}  // namespace yb
