// Two hands on one shop: what each of them changed, brought together.
#pragma once

#include <string>

#include "core/files/io/fields_json.h"
#include "core/shop/job/documents.h"

namespace yb {

/// Brings two changes of one document together: what only one hand changed is that hand's, field by field and, in lists that
/// both left as long as they were, item by item. Where both changed the same, `mine` holds: it is the later one.
Json merged_json(const Json& base, const Json& mine, const Json& theirs);

/// Brings together what became of `base` in two programs. A document that one hand took away and the other changed stays. One
/// that both added under the same id becomes two: mine gets an id of its own, and my jobs that use it follow.
/// @throws FormatError where a document that came of it can't be read, which none of ours can.
Documents merged(const Documents& base, const Documents& mine, const Documents& theirs);

}  // namespace yb
