// The client's picture as geometry: the finished top on its base beside a chair, seen in perspective from any side, light from one side.
//
// x along the top, y across it, z up from the floor, mm. The eye stands on a sphere about the middle of the table: turned from straight
// before its long side, lifted from the level. A plane through the eye is projected as a pinhole does: x/z, y/z.
#pragma once

#include <array>
#include <optional>
#include <vector>

#include "core/ground/geometry/geometry.h"

namespace yb {

struct Job;
struct Plan;

struct Eye {
    double turn_deg = -28;  ///< to the right of straight before it
    double lift_deg = 22;   ///< above level, 2 to 88
    double width_px = 1600, height_px = 1000;
};

class Camera {
  public:
    /// Stands so far off that a box fills the picture but for a margin.
    Camera(const Eye& eye, const Vec3& low, const Vec3& high);
    /// Where a place is seen, px from the upper left; behind the eye held just before it.
    Vec2 px(Vec3 at) const;
    double depth(Vec3 at) const;  ///< mm from the eye, along its axis
    Vec3 eye() const { return eye_; }
    /// Three by three, row by row: takes (x, y, 1) on a level plane to (x·w, y·w, w) on the picture.
    std::array<double, 9> level(double z) const;

  private:
    Vec3 eye_{}, right_{}, up_{}, forward_{};
    double focal_ = 1, cx_ = 0, cy_ = 0;
};

/// A plane piece of what is seen, its corners the way round from outside.
struct SceneFace {
    enum class What { base, chair, rim_wood, rim_resin, rim_bark } what = What::base;
    std::vector<Vec3> at;
    double light = 1;        ///< 0 to 1, of a light from the left, above and before
    std::size_t region = 0;  ///< of a rim: whose
};

struct Scene {
    double top_z = 0, under_z = 0;           ///< of the upper face and of the underside
    std::vector<SceneFace> behind;           ///< of chair and base, those seen, the farthest first
    std::vector<SceneFace> rims;             ///< the sides of the top, those seen, the farthest first
    std::vector<SceneFace> before;           ///< of a chair that stands nearer than the table
    std::vector<std::vector<Vec2>> shadows;  ///< on the floor, px
};

/// What stands there: lowest and highest corner of the table, a chair's room beside it.
struct SceneBox {
    Vec3 low, high;
};
SceneBox box_of(const Plan& plan, const Job& job, bool chair);

/// What is seen from there. @param plan its top is ready. @throws std::invalid_argument where it is not.
Scene scene_of(const Plan& plan, const Job& job, const Camera& camera, bool chair);

}  // namespace yb
