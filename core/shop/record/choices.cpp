#include "core/shop/record/choices.h"

namespace yb {

void fields(FieldVisitor& v, AgreedLine& l) {
    v.text({"key", "About", true}, l.key);
    v.text({"says", "Says"}, l.says);
    v.text({"of", "In keys and quantities"}, l.of);
}

void fields(FieldVisitor& v, Agreement& a) {
    v.text({"on", "Agreed on"}, a.on);
    v.text({"signed_as", "Its scan"}, a.signed_as);
    v.list({"lines", "What was agreed"}, a.lines);
}

void fields(FieldVisitor& v, JobPhoto& p) {
    v.text({"key", "Photograph", true}, p.key);
    v.text({"on", "Taken on"}, p.on);
    v.text({"about", "Shows"}, p.about);
    v.text({"thing", "Of"}, p.thing);
}

void fields(FieldVisitor& v, Record& r) {
    v.text({"number", "Number in the book"}, r.number);
    v.text({"delivered", "Delivered on"}, r.delivered);
    v.list({"agreed", "Agreements"}, r.agreed);
    v.list({"photos", "Photographs"}, r.photos);
}

}  // namespace yb
