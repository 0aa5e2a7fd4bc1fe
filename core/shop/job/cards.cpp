#include "core/shop/job/cards.h"

#include <algorithm>

#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/steps.h"

namespace yb {

namespace {

/// Among the cards of all steps; nullptr for one nobody knows.
const CardRow* find_card(const std::string& card) {
    for (const StepRow& row : steps())
        for (const CardRow& c : row.cards ? row.cards() : std::span<const CardRow>())
            if (card == c.key) return &c;
    return nullptr;
}

}  // namespace

std::vector<CardStep> card_of(const std::string& card, const Job& job, const Plan& plan, const Shop& shop) {
    const CardRow* c = find_card(card);
    return c ? c->steps({job, plan, shop}) : std::vector<CardStep>();
}

std::string card_name(const std::string& card) {
    const CardRow* c = find_card(card);
    return c ? c->name : std::string();
}

std::vector<std::pair<std::string, std::string>> running_cards(const Documents& docs) {
    std::vector<std::pair<std::string, std::string>> out;
    for (const auto& [id, job] : docs.jobs)
        for (const CardRun& run : job.runs)
            if (!run.over) out.emplace_back(id, run.card);
    return out;
}

int running_card(const Job& job, const std::string& card) {
    for (std::size_t i = job.runs.size(); i-- > 0;)
        if (job.runs[i].card == card && !job.runs[i].over) return static_cast<int>(i);
    return -1;
}

CardRun* run_of(Job& job, const std::string& card) {
    const int i = running_card(job, card);
    return i >= 0 ? &job.runs[static_cast<std::size_t>(i)] : nullptr;
}

std::size_t start_card(Job& job, const std::string& card, double now, double fast) {
    if (const int i = running_card(job, card); i >= 0) return static_cast<std::size_t>(i);
    CardRun run;
    run.card = card;
    run.started = utc_text(now);
    run.fast = std::max(1.0, fast);
    job.runs.push_back(std::move(run));
    return job.runs.size() - 1;
}

}  // namespace yb
