// Streams edits into a shop file – one slab's notes and, field by field through the table of steps, a job's numbers – and says each
// one only when the store has taken it. Killed by a test.
#include <cstdio>
#include <cstdlib>

#include "core/files/store/store.h"
#include "core/ground/fields/walk.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"

int main(int argc, char** argv) {
    if (argc < 3) return 2;
    const std::string slab = argc > 3 ? argv[3] : "s";
    auto store = yb::Store::open(argv[1]);
    yb::Job blank;
    const auto fields = yb::describe(yb::walk_of(blank));
    for (long i = std::atol(argv[2]);; ++i) {
        yb::Documents d = store.documents();
        d.slabs[slab].id = slab;
        d.slabs[slab].notes = std::to_string(i);
        if (!d.jobs.empty())
            yb::set_number(yb::walk_of(d.jobs.begin()->second), fields[static_cast<std::size_t>(i) % fields.size()].path,
                           static_cast<double>(i % 97));
        try {
            store.append("edit", d);
        } catch (const yb::StoreError& e) {
            if (e.kind() != yb::StoreError::Kind::busy) throw;
            --i;  // another program writes just now: once more
            continue;
        }
        std::printf("%ld\n", i);
        std::fflush(stdout);
    }
}
