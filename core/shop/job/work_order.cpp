#include "core/shop/job/work_order.h"

#include <algorithm>
#include <charconv>

#include "core/shop/job/steps.h"
#include "core/steps/days/days.h"

namespace yb {

namespace {

constexpr int between = 100;  ///< two kinds in the order: room for the parts of one

/// The number behind a kind's key; 0: none.
int part_number(std::string_view operation) {
    const auto dash = operation.rfind('_');
    if (dash == std::string_view::npos) return 0;
    const std::string_view digits = operation.substr(dash + 1);
    int n = 0;
    const auto [end, error] = std::from_chars(digits.data(), digits.data() + digits.size(), n);
    return error == std::errc() && end == digits.data() + digits.size() ? n : 0;
}

}  // namespace

std::string_view kind_key(std::string_view operation) {
    return part_number(operation) > 0 ? operation.substr(0, operation.rfind('_')) : operation;
}

WorkOrder::WorkOrder() {
    std::vector<const OperationKind*> left;
    for (const StepRow& row : steps())
        if (row.kinds)
            for (const OperationKind& k : row.kinds()) left.push_back(&k);
    const auto waits = [&](const OperationKind& k) {
        const auto stands = [&](const char* key) {
            return std::any_of(left.begin(), left.end(), [&](const OperationKind* o) { return o->key == std::string_view(key); });
        };
        return std::any_of(k.after.begin(), k.after.end(), [&](const Before& b) { return stands(b.key); }) ||
               std::any_of(k.follows.begin(), k.follows.end(), stands);
    };
    while (!left.empty()) {
        auto next = std::find_if(left.begin(), left.end(), [&](const OperationKind* k) { return !waits(*k); });
        if (next == left.end()) next = left.begin();  // a circle, which tests/shop/job finds
        kinds_.push_back(*next);
        left.erase(next);
    }
}

int WorkOrder::order_of(std::string_view kind) const {
    const auto it = std::find_if(kinds_.begin(), kinds_.end(), [&](const OperationKind* k) { return k->key == kind; });
    return static_cast<int>(it - kinds_.begin()) * between;
}

void WorkOrder::place(Operation& o) const {
    const int part = part_number(o.key), order = order_of(kind_key(o.key));
    o.order = order + std::clamp(part, 0, between - 1);
    const auto i = static_cast<std::size_t>(order / between);
    if (i >= kinds_.size()) return;
    const OperationKind& kind = *kinds_[i];
    o.pace = kind.pace, o.ordered = kind.ordered, o.implied = kind.implied;
    if (part <= 1)
        for (const Before& b : kind.after) o.after.emplace_back(b.key);
}

}  // namespace yb
