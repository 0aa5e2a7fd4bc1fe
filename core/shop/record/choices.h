// The record of a job: what the client agreed to, photographs, the number it has in the book, when it was delivered.
#pragma once

#include <string>
#include <vector>

#include "core/ground/fields/fields.h"

namespace yb {

/// A sentence that was agreed to, of the plan as it stood.
struct AgreedLine {
    std::string key;  ///< "size", "edges", "voids", "colour", "finish", "seasons", "price"
    std::string says;
    std::string of{};  ///< what is agreed as keys and quantities, whatever units and words it is said in: "2400 900 45"; empty: by a
                       ///< program before that
    bool operator==(const AgreedLine&) const = default;
};
struct Agreement {
    std::string on;         ///< ISO date
    std::string signed_as;  ///< its scan or photograph, by its key in the shop; empty: none
    std::vector<AgreedLine> lines;
    bool operator==(const Agreement&) const = default;
};
struct JobPhoto {
    std::string key;    ///< in the shop
    std::string on;     ///< ISO date, or a moment
    std::string about;  ///< what it shows, as typed
    std::string thing;  ///< key of a thing, or empty
    bool operator==(const JobPhoto&) const = default;
};
struct Record {
    std::string number;     ///< in the book, on the label of the finished piece
    std::string delivered;  ///< ISO date; empty: not yet
    std::vector<Agreement> agreed;
    std::vector<JobPhoto> photos;
    bool operator==(const Record&) const = default;
};
void fields(FieldVisitor& v, AgreedLine& l);
void fields(FieldVisitor& v, Agreement& a);
void fields(FieldVisitor& v, JobPhoto& p);
void fields(FieldVisitor& v, Record& r);

}  // namespace yb
