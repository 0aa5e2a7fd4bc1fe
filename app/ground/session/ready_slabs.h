// Slabs made ready for planning, kept while they lie on the bench; a scanned slab gets the heights of its whole cloud once that was read.
#pragma once

#include <map>
#include <memory>
#include <string>
#include <vector>

#include <QObject>

#include "core/material/slab/slab.h"

namespace yb {

struct PreparedSlab;

class ReadySlabs : public QObject {
    Q_OBJECT
  public:
    /// Another shop: its scans are read from there.
    void open(const std::string& shop);
    /// A plan begins: what is not asked for until end() is let go.
    void begin();
    void end();
    /// @param over turned over.
    std::shared_ptr<const PreparedSlab> get(const Slab& slab, bool over);

  Q_SIGNALS:
    void finer();  ///< the whole cloud of a slab was read: plan again
    void trouble(const QString& sentence);

  private:
    /// The whole cloud of a scanned slab is read beside the work; until it is there the coarse heights serve.
    void fetch_scan(const Slab& slab);

    struct Ready {
        Slab slab;
        bool over = false, all_heights = false;
        std::shared_ptr<const PreparedSlab> prepared;
        bool used = false;
    };
    std::vector<Ready> ready_;
    /// Heights from every point of a cloud, by its key; empty while on their way.
    struct AllHeights {
        HeightGrid a, b;
        bool there = false;
    };
    std::map<std::string, AllHeights> scans_;
    std::string shop_;
};

}  // namespace yb
