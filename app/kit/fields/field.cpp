#include "app/kit/fields/field.h"

#include <map>

#include "core/ground/fields/walk.h"
#include "core/shop/job/job.h"

namespace yb {

QString in_units(Quantity q, const Session& s) { return QString::fromStdString(format(q, s.units())); }

namespace {

/// `top.length_mm` is `top_length`.
QString name_of_path(const std::string& path) {
    QString name = QString::fromStdString(path).remove("[]").replace('.', '_');
    for (const char* unit : {"_mm", "_pct", "_deg", "_h"})
        if (name.endsWith(unit)) name.chop(static_cast<int>(qstrlen(unit)));
    return name;
}

/// `patches[2].depth_mm` is declared at `patches[].depth_mm`.
std::string of_every_item(const std::string& path) {
    std::string out;
    bool number = false;
    for (const char c : path) {
        if (c == ']') number = false;
        if (!number) out += c;
        if (c == '[') number = true;
    }
    return out;
}

Field declared(const NumberAt& at, const std::string& path, const QString& name, const QString& label) {
    Field f;
    f.name = name.isEmpty() ? name_of_path(path) : name;
    f.label = label.isEmpty() ? QObject::tr(at.field.label) : label;
    f.kind = at.field.kind;
    f.low = at.field.range.low, f.high = at.field.range.high;
    f.may_be_empty = at.may_be_empty;
    return f;
}

}  // namespace

namespace {
/// @param now the job, slab or shop that is looked at, or nullptr; @param edit a revision of it.
template <class T>
Field number_of(const std::string& path, const QString& name, const QString& label, const T* (*now)(const Session&),
                bool (Session::*edit)(const QString&, const std::function<void(T&)>&)) {
    // What is declared never changes: looked up once a path.
    static std::map<std::string, NumberAt> known;
    auto at = known.find(path);
    if (at == known.end()) {
        T blank;
        at = known.emplace(path, declared_at(walk_of(blank), of_every_item(path))).first;
    }
    Field f = declared(at->second, path, name, label);
    f.get = [path, now](const Session& s) -> std::optional<double> {
        if (!now(s)) return {};
        return number_at(walk_of(const_cast<T&>(*now(s))), path).value;  // number_at() reads only: a job is not copied for each line
    };
    f.set = [path, edit, text = f.label, empty = f.may_be_empty](Session& s, std::optional<double> v) {
        if (v || empty) (s.*edit)(text, [&](T& t) { set_number(walk_of(t), path, v); });
    };
    return f;
}
}  // namespace

Field of(Field field, const char* kinds) {
    field.of = QString::fromLatin1(kinds);
    return field;
}

std::vector<Field> four_corners(const QString& name, const QString& what, double low, double high,
                                std::function<const std::vector<std::optional<double>>*(const Session&)> all,
                                std::function<void(Session&, std::size_t, std::optional<double>)> set, const QString& of) {
    const QString places[] = {QObject::tr("%1, left near"), QObject::tr("%1, right near"), QObject::tr("%1, right far"),
                              QObject::tr("%1, left far")};
    std::vector<Field> out;
    for (std::size_t k = 0; k < 4; ++k)
        out.push_back({QString("%1_%2").arg(name).arg(k + 1), places[k].arg(what), Kind::fine,
                       [all, k](const Session& s) -> std::optional<double> {
                           const auto* readings = all(s);
                           return readings && k < readings->size() ? (*readings)[k] : std::nullopt;
                       },
                       [set, k](Session& s, std::optional<double> v) { set(s, k, v); }, low, high, true, of});
    return out;
}

Field job_number(const std::string& path, const QString& name, const QString& label) {
    return number_of<Job>(
        path, name, label, [](const Session& s) { return s.job(); }, &Session::edit_job);
}

Field slab_number(const std::string& path, const QString& name, const QString& label) {
    return number_of<Slab>(
        path, name, label, [](const Session& s) { return s.slab(); }, &Session::edit_slab);
}

Field shop_number(const std::string& path, const QString& name, const QString& label) {
    Field f = number_of<Shop>(
        path, name, label, [](const Session& s) { return &s.shop(); }, &Session::edit_shop);
    f.starts = [path] {
        Shop fresh;
        return number_at(walk_of(fresh), path).value;
    };
    return f;
}

}  // namespace yb
