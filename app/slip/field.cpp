#include "app/slip/field.h"

namespace yb {

QString in_units(Quantity q, const Session& s) { return QString::fromStdString(format(q, s.units())); }

Field job_field(const QString& name, const QString& label, Kind kind, double low, double high, std::function<double&(Job&)> member) {
    return {name,
            label,
            kind,
            [member](const Session& s) -> std::optional<double> {
                if (!s.job()) return {};
                Job copy = *s.job();
                return member(copy);
            },
            [member, label](Session& s, std::optional<double> v) {
                if (v) s.edit_job(label, [&](Job& j) { member(j) = *v; });
            },
            low,
            high,
            false};
}

Field shop_field(const QString& name, const QString& label, Kind kind, double low, double high, std::function<double&(Shop&)> member) {
    return {name,
            label,
            kind,
            [member](const Session& s) -> std::optional<double> {
                Shop copy = s.shop();
                return member(copy);
            },
            [member, label](Session& s, std::optional<double> v) {
                if (v) s.edit(label, [&](Documents& d) { member(d.shop) = *v; });
            },
            low,
            high,
            false};
}

}  // namespace yb
