// Slabs brought in from files: scans, drawings, grown logs. Each becomes one revision, with what was taken for
// granted written into its notes.
#pragma once

#include <optional>

#include <QString>

#include "core/material/drawing/drawing.h"
#include "core/material/scan/scan.h"
#include "core/material/tree/saw.h"

namespace yb {

class LongWork;
class Session;

/// Reads a scan in the background, then puts its slab on the rack and looks at it.
void bring_scan(Session& session, LongWork& work, const QString& path, std::function<void(const QString&)> say);

/// What the outline in a drawing becomes.
enum class OutlineAs { slab, free_form };

/// Reads a drawing in the background. Where neither the file nor the call says its unit, or no slab is so long or so short, nothing is done
/// but `ask_unit`, with the reason.
void bring_drawing(Session& session, LongWork& work, const QString& path, std::optional<double> mm_per_unit, OutlineAs as,
                   std::function<void(const QString& why)> ask_unit);

/// Grows and saws a log in the background and puts its slabs with their faces on the rack.
void bring_log(Session& session, LongWork& work, const LogRecipe& recipe, const SawPlan& saw, const DryPlan& dry, double mm_per_px,
               std::function<void(const QString&)> say);

/// Reads a list of slabs (core/files/io/stock_list.h) in the background and puts them on the rack as one revision; they can be undone as
/// one.
void bring_list(Session& session, LongWork& work, const QString& path, std::function<void(const QString&)> say);

/// Reads days off from a calendar (core/files/io/days_off.h) in the background and adds those that are not known yet as one revision.
void bring_days_off(Session& session, LongWork& work, const QString& path, const std::function<void(const QString&, bool bad)>& say);
/// Reads a room's air (core/files/io/csv.h) in the background: months of the job on the bench.
void bring_air(Session& session, LongWork& work, const QString& path, const std::function<void(const QString&, bool bad)>& say);

/// The scan or photograph of the signed agreement of the job on the bench.
void bring_signed(Session& session, LongWork& work, const QString& path, std::function<void(const QString&, bool)> say);
/// A photograph of the job on the bench, of what is picked there: kept once, named in the book.
void bring_photo_of_job(Session& session, LongWork& work, const QString& path, std::function<void(const QString&, bool)> say);
/// Reads the picture of a sample board in the background, upright and no larger than a page needs, and keeps it with the job.
void bring_sample(Session& session, LongWork& work, const QString& path, std::function<void(const QString&)> say);

/// Adds a slab under a fresh id and looks at it. Returns the id.
std::string add_slab(Session& session, const Slab& slab, const QString& label);

}  // namespace yb
