#include "core/shop/edit/skin_edits.h"

#include <algorithm>

#include "core/shop/job/job.h"

namespace yb {

namespace {
FaceChoice& face_of(Job& job, const std::string& key) {
    auto& all = job.skin.faces;
    const auto it = std::find_if(all.begin(), all.end(), [&](const FaceChoice& f) { return f.key == key; });
    if (it != all.end()) return *it;
    all.push_back({key, false, false});
    return all.back();
}
}  // namespace

void leave_face_out(Job& job, const std::string& face, bool out) { face_of(job, face) = {face, out, false}; }
void seal_face(Job& job, const std::string& face, bool sealed) { face_of(job, face) = {face, !sealed, sealed}; }

void sign_sample(Job& job, const std::string& on) {
    job.skin.sample_signed = !on.empty();
    job.skin.sample_on = on;
}
void set_figured(Job& job, bool figured) { job.skin.figured = figured; }

}  // namespace yb
