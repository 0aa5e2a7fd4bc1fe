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
void finish_face(Job& job, const std::string& face, FaceFinish finish) { face_of(job, face) = {face, false, false, finish}; }

void treat_once(Job& job) {
    auto& all = job.skin.faces;
    std::vector<FaceChoice> once;
    for (FaceChoice& f : all)
        if (std::none_of(once.begin(), once.end(), [&](const FaceChoice& o) { return o.key == f.key; })) once.push_back(std::move(f));
    all = std::move(once);
}

void move_seam(Job& job, std::vector<double> all, std::size_t seam, double by) {
    double& u = all.at(seam);
    constexpr double least = 20;  // a zone narrower than a hand is none
    const double low = seam > 0 ? all[seam - 1] + least : -1e9;
    const double high = seam + 1 < all.size() ? all[seam + 1] - least : 1e9;
    if (low < high) u = std::clamp(u + by, low, high);
    job.skin.seams_mm = std::move(all);
}

void even_zones(Job& job) { job.skin.seams_mm.clear(); }

void keep_sample_picture(Job& job, const std::string& key) { job.skin.sample_picture = key; }

void sign_sample(Job& job, const std::string& on) {
    job.skin.sample_signed = !on.empty();
    job.skin.sample_on = on;
}
void set_figured(Job& job, bool figured) { job.skin.figured = figured; }

}  // namespace yb
