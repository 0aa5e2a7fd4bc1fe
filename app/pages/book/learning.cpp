#include "app/pages/book/learning.h"

#include <algorithm>
#include <cmath>

#include "app/ground/words.h"
#include "core/shop/job/cards.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/rates.h"
#include "core/shop/pace/learned.h"

namespace yb {

namespace {

/// Cards that were run to their end, tables that were delivered.
std::size_t ended(const Documents& docs) {
    std::size_t n = 0;
    for (const auto& [id, job] : docs.jobs) {
        n += job.record.delivered.empty() ? 0 : 1;
        n += static_cast<std::size_t>(std::count_if(job.runs.begin(), job.runs.end(), run_to_its_end));
    }
    return n;
}

}  // namespace

Learning::Learning(Session& session, QObject* parent) : QObject(parent), session_(session) {
    connect(&session_, &Session::changed, this, &Learning::look);
}

void Learning::look() {
    if (session_.previewing() || !session_.is_open()) return;
    const std::size_t now = ended(session_.documents());
    const bool more = of_ == session_.path() && now > ended_;
    of_ = session_.path(), ended_ = now;
    if (more && !session_.read_only()) learn();
}

void Learning::learn() {
    if (learning_) learning_->stop.request_stop();
    learning_ = run_beside(
        this,
        [this, docs = session_.documents(), path = of_](const Work& w) -> std::function<void()> {
            const auto figures = learned_paces(docs, w).figures;
            return [this, figures, path] {
                learning_.reset();
                if (session_.path() != path) return;
                Shop shop = session_.shop();
                const std::vector<PaceFigure> before = shop.paces;
                if (!take_paces(shop, figures)) return;
                if (!session_.edit_shop(tr("Your pace, learned anew"), [&](Shop& s) { take_paces(s, figures); })) return;
                // What is used from now on and was not, or is another by a twentieth.
                QStringList said;
                const Job* job = session_.job();
                for (const PaceFigure& f : shop.paces) {
                    const PaceKind* k = find_pace_kind(f.key);
                    if (k && is_used(f) && std::abs(pace_of(before, f.key) / f.times - 1) > 0.05)
                        said << tr("%1, %2").arg(
                            told(k->label), QString::fromStdString(yb::render(figure_of(f, shop, job ? *job : Job()), session_.units())));
                }
                if (said.isEmpty()) return;
                const int more = static_cast<int>(said.size()) - 2;
                Q_EMIT learned(
                    more > 0
                        ? tr("Yours from now on: %1; %2; %3 more in the book (B), where each is put back.").arg(said[0], said[1]).arg(more)
                        : tr("Yours from now on: %1. In the book (B) it is put back.").arg(said.join(QStringLiteral("; "))));
            };
        },
        [this](const QString&) { learning_.reset(); });
}

}  // namespace yb
