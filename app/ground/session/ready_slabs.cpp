#include "app/ground/session/ready_slabs.h"

#include "app/ground/slow/runner.h"
#include "core/files/store/store.h"
#include "core/material/scan/scan.h"
#include "core/shop/job/plan.h"

namespace yb {

void ReadySlabs::open(const std::string& shop) {
    shop_ = shop;
    scans_.clear();
}

void ReadySlabs::begin() {
    for (Ready& r : ready_) r.used = false;
}

void ReadySlabs::end() {
    std::erase_if(ready_, [](const Ready& r) { return !r.used; });
}

std::shared_ptr<const PreparedSlab> ReadySlabs::get(const Slab& slab, bool over) {
    const auto scan = slab.scan.empty() ? scans_.end() : scans_.find(slab.scan);
    const bool all = scan != scans_.end() && scan->second.there;
    if (!slab.scan.empty() && scan == scans_.end()) fetch_scan(slab);
    for (Ready& r : ready_)
        if (r.over == over && r.all_heights == all && r.slab == slab) {
            r.used = true;
            return r.prepared;
        }
    Slab finer = slab;
    if (all) {
        finer.heights_a = scan->second.a;
        if (!scan->second.b.x_mm.empty()) finer.heights_b = scan->second.b;
    }
    ready_.push_back({slab, over, all, prepare(finer, over), true});
    return ready_.back().prepared;
}

void ReadySlabs::fetch_scan(const Slab& slab) {
    scans_[slab.scan];
    if (shop_.empty()) return;
    run_beside(
        this,
        [this, path = shop_, slab](const Work&) -> std::function<void()> {
            const auto bytes = Store::read_attachment(path, slab.scan);
            if (!bytes) return {};
            const Slab fine = with_all_heights(slab, read_cloud(*bytes).points);
            AllHeights heights{fine.heights_a, fine.heights_b == slab.heights_b ? HeightGrid{} : fine.heights_b, true};
            return [this, path, key = slab.scan, heights = std::move(heights)] {
                if (shop_ != path) return;
                scans_[key] = heights;
                Q_EMIT finer();
            };
        },
        [this](const QString& sentence) {  // the coarse heights stay
            Q_EMIT trouble(tr("A slab's scan can't be read, its coarse heights serve: %1.").arg(sentence));
        });
}

}  // namespace yb
