#include "core/shop/book/plots.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <stdexcept>

#include "core/ground/calendar/calendar.h"
#include "core/ground/cure/cure.h"
#include "core/material/resin/mix.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/shop/pace/learned.h"
#include "core/steps/days/days.h"
#include "core/steps/pour/pour.h"
#include "core/steps/rack/rack.h"

namespace yb {

const std::vector<std::pair<const char*, const char*>>& book_plots() {
    static const std::vector<std::pair<const char*, const char*>> all{{"moisture", "Moisture of its wood"},
                                                                      {"air", "Air of the shop"},
                                                                      {"rest", "Cup and twist over a rest"},
                                                                      {"pour", "Heat of the pour"},
                                                                      {"hours", "Hours, planned and taken"}};
    return all;
}

namespace {

class Plotting {
  public:
    Plotting(const std::vector<BookLine>& lines, const Documents& docs, const std::string& id, const Plan* plan)
        : lines_(lines), docs_(docs), id_(id), plan_(plan) {}

    BookPlot of(const std::string& key) {
        for (const auto& [k, name] : book_plots())
            if (key == k) p_.key = k, p_.title = name;
        if (p_.key.empty()) throw std::invalid_argument("nobody knows the plot ‘" + key + "’");
        if (key == "moisture") moisture();
        else if (key == "air") air();
        else if (key == "rest") rest();
        else if (key == "pour") pour();
        else hours();
        std::erase_if(p_.lines, [](const PlotLine& l) { return l.points.empty(); });
        if (p_.lines.empty()) p_.note = p_.note.empty() ? "Nothing of it is in the book yet." : p_.note;
        return std::move(p_);
    }

  private:
    const Job* job() const {
        const auto it = docs_.jobs.find(id_);
        return it == docs_.jobs.end() ? nullptr : &it->second;
    }

    void start_at(const std::vector<std::vector<BookPoint>>& all) {
        for (const auto& points : all)
            for (const BookPoint& b : points)
                if (const std::string day = b.at.substr(0, 10); is_date(day) && (p_.start.empty() || day < p_.start)) p_.start = day;
    }

    double x_of(const std::string& at) const { return hours_to(p_.start, at.substr(0, 16)).value_or(0) / 24; }

    void dots(const std::string& label, const std::vector<BookPoint>& points) {
        PlotLine l{label, {}, true};
        for (const BookPoint& b : points)
            if (hours_to(p_.start, b.at.substr(0, 16))) l.points.emplace_back(x_of(b.at), b.value), l.lines.push_back(b.id);
        p_.lines.push_back(std::move(l));
    }

    void moisture() {
        p_.unit = "%";
        if (!job()) return;
        std::vector<std::string> ids = job()->slabs();
        std::vector<std::vector<BookPoint>> all;
        for (const std::string& s : ids) all.push_back(readings_of(lines_, "moisture", {}, "slab " + s));
        start_at(all);
        for (std::size_t i = 0; i < ids.size(); ++i) {
            const auto it = docs_.slabs.find(ids[i]);
            dots(it == docs_.slabs.end() ? ids[i] : it->second.name, all[i]);
        }
        if (p_.start.empty()) return;
        // The forecast of the one that dries longest, from its first reading, with how early and how late it may be.
        for (std::size_t i = 0; i < ids.size(); ++i) {
            const auto it = docs_.slabs.find(ids[i]);
            if (it == docs_.slabs.end() || all[i].empty()) continue;
            const double thick = plan_ && i < plan_->leaves.size() && plan_->leaves[i].made
                                     ? plan_->leaves[i].slab().tape.stations.empty()
                                           ? 50
                                           : plan_->leaves[i].slab().tape.stations[0].thickness_mm.value_or(50)
                                     : 50;
            const std::string on = all[i].front().at.substr(0, 10);
            Slab first = it->second;
            const auto f =
                drying_of(first, thick, docs_.shop.air, dry_enough_pct(job()->room, docs_.shop), on, pace_of(docs_.shop.paces, "drying"));
            if (!f || !(f->tau_days > 0)) continue;
            const double m0 = all[i].front().value, x0 = x_of(all[i].front().at);
            PlotLine l{f->fitted ? "forecast, by its own readings" : "forecast, a rule of thumb", {}, false};
            for (int k = 0; k <= 40; ++k) {
                const double days = k * std::max(30.0, x_of(all[i].back().at) - x0 + 30) / 40;
                const auto at = [&](double tau) { return f->settles_pct + (m0 - f->settles_pct) * std::exp(-days / tau); };
                l.points.emplace_back(x0 + days, at(f->tau_days));
                p_.low.emplace_back(x0 + days, at(f->tau_days / f->doubt));
                p_.high.emplace_back(x0 + days, at(f->tau_days * f->doubt));
            }
            p_.lines.push_back(std::move(l));
            break;
        }
    }

    void air() {
        p_.unit = "%";
        const auto temps = readings_of(lines_, "air", {}, "shop"), damp = readings_of(lines_, "humidity", {}, "shop");
        start_at({temps, damp});
        dots("relative humidity", damp);
        dots("air, °C", temps);
        // What wood would settle to in that air: where both were read within a day.
        PlotLine settles{"what wood settles to", {}, false};
        for (const BookPoint& d : damp)
            for (const BookPoint& t : temps)
                if (t.at.substr(0, 10) == d.at.substr(0, 10) && d.value >= 0 && d.value <= 100 && t.value > -40 && t.value < 60) {
                    settles.points.emplace_back(x_of(d.at), equilibrium_moisture(t.value, d.value));
                    break;
                }
        p_.lines.push_back(std::move(settles));
    }

    void rest() {
        p_.unit = "mm";
        std::vector<std::vector<BookPoint>> all;
        for (const char* what : {"cup", "bow", "twist"}) all.push_back(readings_of(lines_, what, id_));
        start_at(all);
        const char* names[] = {"cup", "bow", "twist"};
        for (std::size_t i = 0; i < all.size(); ++i) dots(names[i], all[i]);
    }

    void pour() {
        p_.unit = "°C";
        if (!job()) return;
        PlotLine read{"thermocouple", {}, true};
        for (const CardRun& r : job()->runs) {
            if (r.card != "pour" || r.fast != 1) continue;
            double poured = 0;
            for (const CardTick& t : r.ticks)
                if (index_of(t.step, pour_step) && poured == 0) poured = t.after_s;
            for (const CardReading& c : r.readings) read.points.emplace_back((c.after_s - poured) / 3600, c.temp_c);
        }
        const double until = read.points.empty() ? 48 : std::max(4.0, read.points.back().first);
        p_.lines.push_back(std::move(read));
        if (!plan_ || plan_->pour->lifts.empty()) return;
        const Resin* resin = find_resin(docs_.shop.resins, plan_->pour->resin);
        if (!resin) return;
        const Section section = section_of(plan_->pour->lifts.front().depth_mm, plan_->pour->air_c, job()->pour);
        const Cured cured = cure(kinetics_of(*resin), section, {3, 80});
        PlotLine model{"as simulated", {}, false};
        for (std::size_t i = 0; i < cured.frames.size(); ++i)
            if (cured.frames[i].h <= until) model.points.emplace_back(cured.frames[i].h, resin_hottest_c(cured, section, i));
        p_.lines.push_back(std::move(model));
    }

    void hours() {
        p_.unit = "h";
        if (!plan_ || !job()) return;
        const Learned l = learned_hours(docs_, {{id_, std::shared_ptr<const Plan>(plan_, [](const Plan*) {})}});
        PlotLine planned{"planned", {}, false}, taken{"taken", {}, true};
        for (const PaceKind& k : pace_kinds()) {
            double a = 0, b = 0;
            bool odd = false;
            for (const Took& t : l.took)
                if (t.kind == k.key) a += t.starting, b += t.took, odd = odd || t.outlier;
            if (a == 0 && b == 0) continue;
            const double x = static_cast<double>(p_.bars.size());
            planned.points.emplace_back(x, a), taken.points.emplace_back(x, b);
            p_.bars.push_back(k.label);
            if (odd) p_.note = "Ticks far off the rest, forgotten over night perhaps, are shown and hardly counted.";
        }
        p_.lines.push_back(std::move(planned)), p_.lines.push_back(std::move(taken));
    }

    const std::vector<BookLine>& lines_;
    const Documents& docs_;
    std::string id_;
    const Plan* plan_;
    BookPlot p_;
};

}  // namespace

BookPlot plot_of(const std::string& key, const std::vector<BookLine>& lines, const Documents& docs, const std::string& job,
                 const Plan* plan) {
    return Plotting(lines, docs, job, plan).of(key);
}

}  // namespace yb
