// Visitors over fields: one field found by its path, what lies outside its range, a table of all there is.
#pragma once

#include <functional>

#include "core/ground/fields/fields.h"

namespace yb {

/// A visitor that knows the path of where it is: `under.plates[1].across_mm`. By itself it changes nothing.
class PathVisitor : public FieldVisitor {
  public:
    void number(const NumberField&, double&) override {}
    void number(const NumberField&, int&) override {}
    void number(const NumberField&, std::optional<double>&) override {}
    void number(const NumberField&, std::optional<int>&) override {}
    void numbers(const NumberField&, std::vector<double>&) override {}
    void numbers(const NumberField&, std::vector<std::optional<double>>&) override {}
    void flag(const FieldName&, bool&) override {}
    void text(const FieldName&, std::string&) override {}
    void point(const FieldName&, Vec2&) override {}
    void ring(const FieldName&, Ring&) override {}
    void option(const SchoolText&, std::size_t&) override {}

  protected:
    bool enter(const FieldName& f) override;
    bool enter_maybe(const FieldName& f, bool there) override;
    std::size_t enter_list(const FieldName& f, std::size_t now) override;
    void enter_item(std::size_t i) override;
    void leave() override;
    std::string path(const char* key) const { return path_.empty() ? key : path_ + "." + key; }
    const std::string& here() const { return path_; }

  private:
    std::string path_;
    std::vector<std::size_t> marks_;
};

/// One number of a struct, found by its path. `[]` in the path stands for every item of a list.
struct NumberAt {
    NumberField field{};
    bool there = false;           ///< the path leads to a number (of the first item, for lists)
    bool may_be_empty = false;    ///< an optional one
    bool whole = false;           ///< a whole number
    std::optional<double> value;  ///< of the first it leads to
};

/// Something that has fields, with its type hidden: made with `walk_of(job)`.
using FieldWalk = std::function<void(FieldVisitor&)>;
template <class T>
FieldWalk walk_of(T& v) {
    return [&v](FieldVisitor& visitor) { fields(visitor, v); };
}

NumberAt number_at(const FieldWalk& walk, const std::string& path);
/// What is declared of a number, also of an empty list's items. @throws std::out_of_range for a path that leads nowhere.
NumberAt declared_at(const FieldWalk& walk, const std::string& path);
/// Sets every number that the path leads to. An empty value empties an optional one and leaves others as they are; whole
/// numbers are rounded. @returns how many were set.
std::size_t set_number(const FieldWalk& walk, const std::string& path, std::optional<double> value);

/// Which option of a school is chosen, and the school; by the path of its field.
struct OptionAt {
    bool there = false;
    SchoolText school{};
    std::size_t chosen = 0;
};
OptionAt option_at(const FieldWalk& walk, const std::string& path);
/// Sets a school by the key that choices call it by. @returns false for a choice or an option that is not there.
bool set_school(const FieldWalk& walk, const std::string& choice, const std::string& option);
bool set_option(const FieldWalk& walk, const std::string& path, std::size_t chosen);

/// How far from the chalk line's nought, or from a top's middle, a place can lie, mm: no yard has longer wood.
inline constexpr Range reach{-30000, 30000};

/// A number that no shop could meet, and what the plan is made with instead.
struct OutOfRange {
    std::string path, label;
    Kind kind = Kind::number;
    Range range;
    double value = 0, held = 0;
};
/// Brings every number into its range, not-a-number to its lowest. @returns those that were out of it.
std::vector<OutOfRange> hold_in_range(const FieldWalk& walk);

/// One line of a table of fields.
struct FieldLine {
    std::string path, label, what;  ///< `what`: "length, mm, 5 to 3000", "true or false", "one of a, b"
};
/// Every field in order, items of empty lists too. `of` is given a value of defaults.
std::vector<FieldLine> describe(const FieldWalk& walk);
/// The same as lines of text, two columns: for --help and docs/formats.md.
std::string table_of(const std::vector<FieldLine>& fields);

}  // namespace yb
