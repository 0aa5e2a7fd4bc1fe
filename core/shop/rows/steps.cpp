// The table of steps: its rows in the order of work. Each has a file beside this one.
#include "core/shop/job/steps.h"

#include <algorithm>
#include <stdexcept>
#include <string>

namespace yb {

// Each in its file beside this one.
StepRow rack_row();
StepRow lay_row();
StepRow flat_row();
StepRow fill_row();
StepRow pour_row();
StepRow join_row();
StepRow under_row();
StepRow skin_row();
StepRow sheets_row();

namespace {

std::vector<StepRow>& table() {
    static std::vector<StepRow> all{rack_row(), lay_row(),   flat_row(), fill_row(),  pour_row(),
                                    join_row(), under_row(), skin_row(), sheets_row()};
    return all;
}

/// True when a word stands in a list told apart by blanks.
bool lists(std::string_view list, std::string_view word) {
    while (!list.empty()) {
        const auto end = std::min(list.find(' '), list.size());
        if (list.substr(0, end) == word) return true;
        list.remove_prefix(std::min(end + 1, list.size()));
    }
    return false;
}

}  // namespace

std::span<const StepRow> steps() { return table(); }

const StepRow* find_step(std::string_view key) {
    const auto all = steps();
    const auto it = std::find_if(all.begin(), all.end(), [&](const StepRow& r) { return r.step.key == key; });
    return it == all.end() ? nullptr : &*it;
}

const StepRow& row_of(Step step) {
    if (const StepRow* r = find_step(step.key)) return *r;
    throw std::out_of_range("there is no step ‘" + std::string(step.key) + "’");
}

const char* name_of(Step step) {
    const StepRow* r = find_step(step.key);
    return r ? r->name : "";
}

bool before(Step a, Step b) { return find_step(a.key) < find_step(b.key); }

const char* ready_for() {
    const char* last = "";
    for (const StepRow& row : steps())
        if (*row.done) last = row.done;
    return last;
}

Step step_of_shop_field(std::string_view path) {
    const std::string_view first = path.substr(0, path.find_first_of(".["));
    for (const StepRow& row : steps())
        if (lists(row.shop, first)) return row.step;
    return steps().front().step;
}

StepMore::StepMore(const StepRow& row) : step_(row.step) {
    auto& all = table();
    all.insert(std::find_if(all.begin(), all.end(), [](const StepRow& r) { return r.on == StepRow::On::beside; }), row);
}

StepMore::~StepMore() {
    std::erase_if(table(), [&](const StepRow& r) { return r.step == step_; });
}

}  // namespace yb
