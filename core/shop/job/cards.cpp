#include "core/shop/job/cards.h"

#include <algorithm>

#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/rates.h"
#include "core/shop/job/shop.h"
#include "core/shop/job/steps.h"

namespace yb {

namespace {

/// The first card that is asked for, with its step.
template <class Is>
std::pair<const CardRow*, std::string_view> first_card(Is&& is) {
    for (const StepRow& row : steps())
        for (const CardRow& c : row.cards ? row.cards() : std::span<const CardRow>())
            if (is(c)) return {&c, row.step.key};
    return {nullptr, {}};
}

}  // namespace

const CardRow* find_card(const std::string& card) {
    return first_card([&](const CardRow& c) { return card == c.key; }).first;
}

const CardRow* card_for(const std::string& operation) {
    return first_card([&](const CardRow& c) { return operation == c.operation; }).first;
}

std::string step_of_card(const std::string& card) {
    return std::string(first_card([&](const CardRow& c) { return card == c.key; }).second);
}

std::vector<CardStep> card_of(const std::string& card, const Job& job, const Plan& plan, const Shop& shop) {
    const CardRow* c = find_card(card);
    if (!c) return {};
    Job own_job = job;
    Shop own_shop = shop;
    with_rates(own_shop, own_job, shop.paces);
    return c->steps({own_job, plan, own_shop});
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

bool run_to_its_end(const CardRun& run) { return run.over && run.fast == 1 && !run.ticks.empty(); }

std::string next_card(const Job& job, std::initializer_list<const char*> cards) {
    for (const char* card : cards)
        if (std::none_of(job.runs.begin(), job.runs.end(), [&](const CardRun& r) { return r.card == card && run_to_its_end(r); }))
            return card;
    return cards.size() > 0 ? *(cards.end() - 1) : "";
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
