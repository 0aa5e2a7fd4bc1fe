// The demo shop: a made-up small workshop by a tarn, its rack and its jobs. Everything here is invented.
#pragma once

#include <string>
#include <utility>
#include <vector>

#include "core/ground/work/work.h"
#include "core/material/slab/slab.h"
#include "core/shop/book/book.h"

namespace yb {

struct Documents;

/// The demo shop's documents: four slabs measured by tape, eleven from two grown logs and a grown round, three
/// jobs. Always the same; grown once in a program.
const Documents& demo_shop();

/// What the demo shop's book begins with: its delivered table, from the first reading of its wood to the day it was brought, the air of the
/// shop.
std::vector<BookEntry> demo_book();

/// The pictures that the demo shop's grown slabs name: key and JPEG. Grown anew, over the cores.
/// @throws Cancelled.
std::vector<std::pair<std::string, std::string>> demo_pictures(const Work& work = {});

/// How one made-up slab is drawn up: smooth edges from a few waves, faces from bow, cup and twist.
struct SlabRecipe {
    std::string id, name, species, tree;
    double length_mm = 2400, width_mm = 900, thickness_mm = 55;
    double sweep_mm = 20;  ///< how far the middle line bends
    double taper_mm = 60;  ///< narrower at the right end
    double wave_mm = 22;   ///< of the edges
    double bow_mm = 6;     ///< along, hollow on face A
    double cup_mm = 3;     ///< across, hollow on face A
    double twist_mm = 9;   ///< corner to corner
    double lean_left_mm = 12, lean_right_mm = 16;
    double station_mm = 300;
    double grid_x_mm = 200, grid_y_mm = 150;
    double noise_mm = 0.3;
    unsigned seed = 1;
};

/// A slab from a recipe; the same seed gives the same slab.
Slab make_slab(const SlabRecipe& recipe);

}  // namespace yb
