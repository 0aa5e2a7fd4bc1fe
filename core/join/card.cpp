// The glue-up as a card to run: a dry run, then every step against the open time.
#include <cmath>

#include "core/join/join.h"
#include "core/join/told.h"

namespace yb {

std::vector<CardStep> glue_card(const JoinPlan& p, const JoinChoices& c) {
    std::vector<CardStep> out;
    if (p.joints.empty()) return out;
    out.push_back({"dry run", say("Dry run: all of it, clamps too"), say("read the gaps with a feeler gauge; take it apart again"), 1200});
    out.push_back({"set out", say("Clamps open to width, cauls and blocks beside them"),
                   say("{} clamps, wax paper under the joints, a wet rag, the glue stirred", count(p.clamps)), 600});
    const int stages = c.two_stages && p.joints.size() > 1 ? 2 : 1;
    for (int stage = 1; stage <= stages; ++stage) {
        const std::string n = stages > 1 ? " " + std::to_string(stage) : "";
        bool first = true;
        std::string spread;
        for (const GlueStep& s : p.steps) {
            if (s.minutes <= 0) continue;
            const std::string what = s.what;
            CardStep step;
            step.key = what + n;
            step.takes_s = s.minutes * 60;
            if (what == "spread") step.says = say("Spread: {} of joint", square_metres(s.count));
            else if (what == "pieces")
                step.says = say("Glue and set {} {}", count(s.count),
                                c.loose == Loose::dowels     ? "dowels"
                                : c.loose == Loose::biscuits ? "biscuits"
                                                             : "tenons");
            else if (what == "set") step.says = say("Bring {} joints together", count(s.count));
            else
                step.says = say("Clamps: {}, from the middle outward", count(s.count)),
                step.more = say("cauls across the ends; look along the top for a twist");
            if (first) {
                spread = step.key;
                if (stage > 1) {
                    step.after = "clamp 1";
                    step.from_s = 12 * 3600;  // the first stage is dry
                }
            } else {
                // The glue has been open since it was first spread.
                step.after = spread;
                step.until_s = p.open_min * 60;
                step.late = say("The glue skins. Clamp what is together now, scrape the rest clean while it is soft");
            }
            first = false;
            out.push_back(std::move(step));
        }
        CardStep wipe{"wipe" + n, say("Wipe what comes out, pull the paper clear"),
                      say("a damp rag now, or a scraper when it is like leather"), 300};
        out.push_back(std::move(wipe));
    }
    CardStep night{"unclamp", say("Clamps off"), say("it was left overnight"), 600};
    night.from_s = 12 * 3600;
    out.push_back(std::move(night));
    return out;
}

}  // namespace yb
