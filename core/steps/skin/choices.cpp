#include "core/steps/skin/choices.h"

#include <algorithm>

#include "core/ground/figure/part.h"

namespace yb {

const FaceChoice* choice_of_face(const SkinChoices& c, const std::string& key) {
    const auto it = std::find_if(c.faces.begin(), c.faces.end(), [&](const FaceChoice& f) { return f.key == key; });
    if (it != c.faces.end()) return &*it;
    return index_of(key, "base") ? choice_of_face(c, "base") : nullptr;
}

Finish finish_of_face(const SkinChoices& c, const std::string& key) {
    const FaceChoice* f = choice_of_face(c, key);
    return !f || f->finish == FaceFinish::rest ? c.finish : finishes.values.at(static_cast<std::size_t>(f->finish) - 1);
}

const FaceChoice* told_twice(const SkinChoices& c) {
    for (auto f = c.faces.begin(); f != c.faces.end(); ++f)
        if (std::any_of(c.faces.begin(), f, [&](const FaceChoice& before) { return before.key == f->key; })) return &*f;
    return nullptr;
}

void fields(FieldVisitor& v, FaceChoice& f) {
    v.text({"key", "Face", true}, f.key);
    v.flag({"left_out", "Left out"}, f.left_out);
    v.flag({"sealed", "Sealed"}, f.sealed);
    v.school(face_finishes, f);
}

void fields(FieldVisitor& v, SkinChoices& c) {
    constexpr Range grit{36, 2000};
    v.school(finishes, c);
    v.school(befores, c);
    v.school(skin_hands, c);
    v.school(sheens, c);
    v.school(raisings, c);
    v.school(sides_finished, c);
    v.flag({"figured", "Figured wood"}, c.figured);
    v.number({"first_grit", "First grit", Kind::number, grit}, c.first_grit);
    v.number({"stop_grit", "Last grit, wood", Kind::number, grit}, c.stop_grit);
    v.number({"resin_grit", "Last grit, resin", Kind::number, grit}, c.resin_grit);
    v.numbers({"grits", "Grits, by your own order", Kind::number, grit}, c.grits);
    v.number({"coats", "Coats", Kind::count, {1, 12}}, c.coats);
    v.number({"rags_pct", "Stays in rags and pot", Kind::percent, {0, 100}}, c.rags_pct);
    v.number({"thirst", "Drinks, against the label", Kind::number, {0.1, 10}}, c.thirst);
    v.number({"wait_h", "Next coat after", Kind::hours, {0, 2000}}, c.wait_h);
    v.flag({"sample_signed", "The sample is signed"}, c.sample_signed);
    v.text({"sample_on", "Signed on"}, c.sample_on);
    v.text({"sample_picture", "Picture of the sample"}, c.sample_picture);
    v.numbers({"seams_mm", "Where zones end", Kind::length, {-10000, 10000}}, c.seams_mm);
    v.list({"faces", "Faces treated otherwise"}, c.faces);
}

}  // namespace yb
