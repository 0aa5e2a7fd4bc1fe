// A drawing at 1:1 over as many pages as it takes, to be taped together: crosses to lay one on the other, a name on each.
#pragma once

#include <QString>

#include "core/material/drawing/drawing.h"

namespace yb {

/// Writes the drawing as PDF. Pages overlap by 10 mm; each bears its row and column and a bar of 100 mm to check
/// the printer by. Returns what went wrong, or nothing.
QString write_tiled_pdf(const QString& path, const std::vector<DrawnPath>& paths, const QString& title, bool letter);

}  // namespace yb
