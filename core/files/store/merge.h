// Two hands on one shop: what each of them changed, brought together.
#pragma once

#include <string>
#include <vector>

#include "core/files/io/fields_json.h"
#include "core/shop/job/documents.h"

namespace yb {

/// Brings two changes of one document together: what only one hand changed is that hand's, field by field. Lists of things are merged by
/// what names their members (an operation's key, a tick's step, a photograph's key …): what either added stays, what one took away goes
/// unless the other changed it; lists of numbers that both left as long as they were, item by item. Where both changed the same, `mine`
/// holds: it is the later one.
/// @param field what the value is called in its document; empty for a whole document.
Json merged_json(const Json& base, const Json& mine, const Json& theirs, const std::string& field = {});
/// The fields that hold lists of things, as merged_json() knows them.
std::vector<std::string> merged_lists();

/// Brings together what became of `base` in two programs. A document that one hand took away and the other changed stays. One
/// that both added under the same id becomes two: mine gets an id of its own, and my jobs that use it follow.
/// @throws FormatError where a document that came of it can't be read, which none of ours can.
Documents merged(const Documents& base, const Documents& mine, const Documents& theirs);

}  // namespace yb
