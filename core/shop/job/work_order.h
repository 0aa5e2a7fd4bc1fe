// The order of work: every kind of operation of every step, from what its row says it comes after.
#pragma once

#include <string>
#include <string_view>
#include <vector>

namespace yb {

struct Operation;
struct OperationKind;

/// The key of an operation's kind: without the number of a part ("pour_2", "coat_1").
std::string_view kind_key(std::string_view operation);

/// All kinds of operations there are, each after what it comes after; among those that are free the one whose step comes first.
class WorkOrder {
  public:
    WorkOrder();
    /// What its kind says, laid on an operation: its place in the order of work, what must have ended before it begins, whose pace its
    /// hours tell. One that no row knows comes last.
    void place(Operation& operation) const;
    /// Where a kind stands: those before it have smaller numbers, its own parts lie between it and the next.
    int order_of(std::string_view kind) const;
    const std::vector<const OperationKind*>& kinds() const { return kinds_; }

  private:
    std::vector<const OperationKind*> kinds_;
};

}  // namespace yb
