// The best tilt by a general solver: what the program's own is checked against.
#pragma once

#include <glpk.h>

#include <array>
#include <cmath>
#include <stdexcept>
#include <vector>

#include "core/steps/flat/tilt.h"

namespace yb {

/// The same linear program through GLPK: maximise h − g over (a, b, h, g). @returns the true thickness, mm.
/// @param tilt what it found: a and b, top_mm, bottom_mm.
inline double by_glpk(const std::vector<Vec3>& top, const std::vector<Vec3>& bottom, Tilt* tilt = nullptr) {
    glp_term_out(GLP_OFF);
    glp_prob* lp = glp_create_prob();
    glp_set_obj_dir(lp, GLP_MAX);
    glp_add_cols(lp, 4);
    for (int k = 1; k <= 4; ++k) glp_set_col_bnds(lp, k, k <= 2 ? GLP_DB : GLP_FR, -0.5, 0.5);
    glp_set_obj_coef(lp, 3, 1);
    glp_set_obj_coef(lp, 4, -1);
    glp_add_rows(lp, static_cast<int>(top.size() + bottom.size()));
    int row = 1;
    const auto add = [&](const Vec3& p, int column, double sign) {
        const std::array<int, 4> index{0, 1, 2, column};
        const std::array<double, 4> value{0, sign * p.x, sign * p.y, sign};
        glp_set_row_bnds(lp, row, GLP_UP, 0, sign * p.z);
        glp_set_mat_row(lp, row++, 3, index.data(), value.data());
    };
    for (const Vec3& p : top) add(p, 3, 1);
    for (const Vec3& p : bottom) add(p, 4, -1);
    glp_smcp how;
    glp_init_smcp(&how);
    how.tol_bnd = how.tol_dj = 1e-11;
    glp_scale_prob(lp, GLP_SF_AUTO);
    if (glp_simplex(lp, &how) != 0) throw std::runtime_error("GLPK gave up");
    const double a = glp_get_col_prim(lp, 1);
    const double b = glp_get_col_prim(lp, 2);
    const double t = glp_get_obj_val(lp) / std::sqrt(1 + a * a + b * b);
    if (tilt) tilt->a = a, tilt->b = b, tilt->top_mm = glp_get_col_prim(lp, 3), tilt->bottom_mm = glp_get_col_prim(lp, 4);
    glp_delete_prob(lp);
    return t;
}

}  // namespace yb
