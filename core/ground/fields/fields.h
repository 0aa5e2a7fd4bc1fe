// Fields: what a plain struct holds, declared once. A `fields(FieldVisitor&, T&)` beside each struct names every field with
// its key in files, its label, what it measures and the range that a shop could meet. Files in and out, the slip's lines,
// the check of ranges, the shell's help and the tables of docs/formats.md all walk it; there is no second list.
//
// A school of thought is declared once likewise: School{choice, key, label, member, options}.
#pragma once

#include <array>
#include <cstddef>
#include <optional>
#include <span>
#include <string>
#include <type_traits>
#include <vector>

#include "core/ground/geometry/geometry.h"
#include "core/ground/measure/measure.h"

namespace yb {

/// From the lowest to the highest value that a shop could meet; both ends belong to it.
struct Range {
    double low = -1e9, high = 1e9;
    bool holds(double v) const { return v >= low && v <= high; }
};

/// A field's key in files (its unit at the end) and what people call it.
struct FieldName {
    const char* key;
    const char* label;
    bool required = false;  ///< a file without it can't be read
};

/// A number's name, what it measures and its range.
struct NumberField {
    const char* key;
    const char* label;
    Kind kind = Kind::number;
    Range range{};
    bool required = false;
};

/// One way of a school, as visitors see it.
struct OptionName {
    const char* key;
    const char* label;
};

/// A school as visitors see it. `choice` is what choices on the slip call it; nullptr for a plain pick.
struct SchoolText {
    const char* choice;
    const char* key;
    const char* label;
    std::span<const OptionName> options;
    bool flag = false;    ///< of two ways, kept in files as true and false
    std::size_t yes = 0;  ///< of a flag: the option that stands for true
};

/// A school of thought: which member of which struct it sets, and its ways. Options stand in the order of the values.
template <class C, class E, std::size_t N>
struct School {
    const char* choice;
    const char* key;
    const char* label;
    E C::*member;
    std::array<E, N> values;
    std::array<OptionName, N> options;

    constexpr SchoolText text() const {
        if constexpr (std::is_same_v<E, bool>) return {choice, key, label, options, true, index(true)};
        else return {choice, key, label, options};
    }
    constexpr std::size_t index(E value) const {
        for (std::size_t i = 0; i < N; ++i)
            if (values[i] == value) return i;
        return 0;
    }
};

/// One way of a school where it is declared.
template <class E>
struct Way {
    E value;
    const char* key;
    const char* label;
};
template <class E>
Way(E, const char*, const char*) -> Way<E>;  // clang 14 does not deduce it from the members

template <class C, class E, class... W>
constexpr School<C, E, sizeof...(W)> school(const char* choice, const char* key, const char* label, E C::*member, W... ways) {
    return {choice, key, label, member, {ways.value...}, {OptionName{ways.key, ways.label}...}};
}

/// Walks the fields of a struct. Whatever it does with a field it does by reference: it may read or change it.
class FieldVisitor {
  public:
    virtual ~FieldVisitor() = default;
    virtual void number(const NumberField& f, double& v) = 0;
    virtual void number(const NumberField& f, int& v) = 0;
    virtual void number(const NumberField& f, std::optional<double>& v) = 0;
    virtual void number(const NumberField& f, std::optional<int>& v) = 0;
    virtual void numbers(const NumberField& f, std::vector<double>& v) = 0;
    virtual void numbers(const NumberField& f, std::vector<std::optional<double>>& v) = 0;
    virtual void flag(const FieldName& f, bool& v) = 0;
    virtual void text(const FieldName& f, std::string& v) = 0;
    virtual void point(const FieldName& f, Vec2& v) = 0;
    virtual void ring(const FieldName& f, Ring& v) = 0;
    /// @param chosen index into the school's options.
    virtual void option(const SchoolText& s, std::size_t& chosen) = 0;
    /// What was read does not hang together: a reader of files says so with its place, others go on.
    virtual void wrong(const char*, const std::string&) {}

    template <class C, class E, std::size_t N>
    void school(const School<C, E, N>& s, C& c) {
        std::size_t chosen = s.index(c.*s.member);
        option(s.text(), chosen);
        c.*s.member = s.values[chosen < N ? chosen : 0];
    }
    template <class T>
    void object(const FieldName& f, T& v) {
        if (!enter(f)) return;
        fields(*this, v);
        leave();
    }
    /// An object that may be missing.
    template <class T>
    void maybe(const FieldName& f, std::optional<T>& v) {
        if (!enter_maybe(f, v.has_value())) return v.reset();
        if (!v) v.emplace();
        fields(*this, *v);
        leave();
    }
    template <class T>
    void list(const FieldName& f, std::vector<T>& v) {
        v.resize(enter_list(f, v.size()));
        for (std::size_t i = 0; i < v.size(); ++i) {
            enter_item(i);
            fields(*this, v[i]);
            leave();
        }
        if (v.empty() && describes()) {
            T one{};
            enter_item(0);
            fields(*this, one);
            leave();
        }
        leave();
    }

  protected:
    /// False: the object is not there, it stays as it is.
    virtual bool enter(const FieldName& f) = 0;
    /// Whether an object that may be missing is to be there; entered if so.
    virtual bool enter_maybe(const FieldName& f, bool there) = 0;
    /// @returns how many items the list is to have.
    virtual std::size_t enter_list(const FieldName& f, std::size_t now) = 0;
    virtual void enter_item(std::size_t i) = 0;
    virtual void leave() = 0;
    /// True for visitors that want to see the fields of an empty list's items.
    virtual bool describes() const { return false; }
};

}  // namespace yb
