// A finished top drawn small: leaves where they lie, cut at its outline, its river in resin.
#pragma once

#include <memory>
#include <vector>

#include "app/kit/bench/top_picture.h"
#include "core/steps/makeup/choices.h"

namespace yb {

struct SmallTop {
    WantedTop top;
    MakeUp kind = MakeUp::single;
    double across_mm = 0;  ///< as wide as it comes; the wanted width where that is more
    bool fits = true;
    struct Leaf {
        const Slab* slab;
        const SlabShape* shape;  ///< both as laid
        Placement at;
    };
    std::vector<Leaf> leaves;
    std::vector<Joint> joints;  ///< between them, one fewer; may be missing
};

/// In the middle of a box, to scale.
void draw_small_top(QPainter& p, const QRectF& box, TopPicture& tops, const SmallTop& small, double device_ratio);

}  // namespace yb
