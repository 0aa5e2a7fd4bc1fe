// A hand that does to a shop whatever bytes tell it: edits of the core, undo and redo.
#pragma once

#include <functional>
#include <string>

namespace yb {

struct Documents;
struct Plan;

/// What the hand has in view after each thing it did; `job` may be the id of none, its plan is empty then. Throws where
/// something is wrong.
using Seen = std::function<void(const Documents& docs, const std::string& job, const Plan& plan)>;

/// Plays bytes on the demo shop, kept in a shop file, four of them a move: which edit, of which thing, and how far. What an edit refuses
/// with a sentence is left as it was; everything is undone and done again at the end. @throws std::logic_error where undo does not bring
/// back what was there.
void play(const std::string& bytes, const Seen& seen);

}  // namespace yb
