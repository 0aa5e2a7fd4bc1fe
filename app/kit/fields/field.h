// What can be filled in, on the slip, on the bench or on the shop's page: bound to the job, the slab or the shop.
#pragma once

#include <functional>
#include <optional>

#include <QStringList>

#include "app/ground/session/session.h"

namespace yb {

/// A measure to fill in.
struct Field {
    QString name, label;
    Kind kind = Kind::length;
    std::function<std::optional<double>(const Session&)> get;
    std::function<void(Session&, std::optional<double>)> set;
    double low = -1e6, high = 1e6;
    bool may_be_empty = false;
    QString of = QStringLiteral("top");  ///< the kinds of things it is about, as of an action
    /// What it starts at, where it has one: a value that differs is marked, and one press gives it back.
    std::function<std::optional<double>()> starts{};
};

/// Four readings at corners, from the left near one the way round: name_1 … name_4, each labelled `what` and where it is. @param all where
/// they are kept, nullptr where nothing is; @param set takes the corner, 0 to 3.
std::vector<Field> four_corners(const QString& name, const QString& what, double low, double high,
                                std::function<const std::vector<std::optional<double>>*(const Session&)> all,
                                std::function<void(Session&, std::size_t, std::optional<double>)> set, const QString& of);

struct TextField {
    QString name, label;
    std::function<QString(const Session&)> get;
    std::function<void(Session&, const QString&)> set;
};

struct PickField {
    QString name, label;
    QStringList options;
    std::function<int(const Session&)> get;
    std::function<void(Session&, int)> set;
    QString of = QStringLiteral("top");
};

/// Those that are about what is picked, or about the top while nothing is.
template <class F>
std::vector<F> about_picked(std::vector<F> all, const Session& s) {
    const QString about = s.about();
    std::erase_if(all, [&](const F& f) { return !f.of.split(' ').contains(about); });
    return all;
}

/// The field, about things of some kinds only.
Field of(Field field, const char* kinds);

/// A number of the job, by the path it is declared at (core/ground/fields): its label, kind and range are the declaration's. `[]`
/// stands for every item of a list, `[2]` for one; nothing is set where that has gone meanwhile. @param name of the line, for tests; the
/// path's with its unit left out where it is empty.
Field job_number(const std::string& path, const QString& name = {}, const QString& label = {});
/// The same of the slab that is looked at.
Field slab_number(const std::string& path, const QString& name = {}, const QString& label = {});
/// The same in the shop's settings.
Field shop_number(const std::string& path, const QString& name = {}, const QString& label = {});

QString in_units(Quantity q, const Session& s);

}  // namespace yb
