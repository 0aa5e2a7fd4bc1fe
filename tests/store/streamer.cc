// Streams edits into a shop file and says each one only when the store has taken it. Killed by a test.
#include <cstdio>
#include <cstdlib>

#include "core/job/documents.h"
#include "core/store/store.h"

int main(int argc, char** argv) {
    if (argc < 3) return 2;
    auto store = yb::Store::open(argv[1]);
    for (long i = std::atol(argv[2]);; ++i) {
        yb::Documents d = store.documents();
        d.slabs["s"].id = "s";
        d.slabs["s"].notes = std::to_string(i);
        store.append("edit", d);
        std::printf("%ld\n", i);
        std::fflush(stdout);
    }
}
