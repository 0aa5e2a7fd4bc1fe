#include "app/kit/slip/next.h"

#include <algorithm>

namespace yb {

std::optional<Action> next_missing(Session& session, Step at) {
    if (!session.is_open() || at == step_key::rack) return {};
    Session* s = &session;
    const auto stands = [](const auto& entry) { return !entry.second.retired; };
    if (std::none_of(session.slabs().begin(), session.slabs().end(), stands))
        return Action{"next", QObject::tr("Next: the first slab"), {}, [s] { s->set_step(step_key::rack); }};
    const Plan* plan = session.plan();
    if (!session.slab() || !plan) {
        if (session.whole()) return {};
        return Action{"next", QObject::tr("Next: choose a slab"), {}, [s] { s->set_step(step_key::rack); }};
    }
    if (plan->shape() && !plan->shape()->usable)
        return Action{"next", QObject::tr("Next: measure %1").arg(QString::fromStdString(session.slab()->name)), {}, [s] {
                          s->set_step(step_key::rack);
                          Q_EMIT s->measure_wanted();
                      }};
    if (!session.job())
        return Action{
            "next", QObject::tr("Next: a job on %1").arg(QString::fromStdString(session.slab()->name)), {}, [s] { s->new_job(); }};
    return {};
}

}  // namespace yb
