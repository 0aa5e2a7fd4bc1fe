// The glue-up as a card to run: a dry run, then every step against the open time. And an open river put together on its rods.
#include <cmath>

#include "core/steps/join/join.h"
#include "core/steps/join/told.h"

namespace yb {

std::vector<CardStep> glue_card(const JoinPlan& p, const JoinChoices& c) {
    std::vector<CardStep> out;
    if (p.joints.empty()) return out;
    out.push_back({"dry run", say("Dry run: all of it, clamps too"), say("read the gaps with a feeler gauge; take it apart again"), 1200});
    out.push_back({"set out", say("Clamps open to width, cauls and blocks beside them"),
                   say("{}, wax paper under the joints, a wet rag, the glue stirred", counted(p.clamps, "clamp", "clamps")), 600});
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
            step.pace = what == "across" ? "glue_clamp" : "glue_" + what;  // cauls go on like clamps
            if (what == "spread") step.says = say("Spread: {} of joint", square_metres(s.count));
            else if (what == "pieces")
                step.says = say("Glue and set {} {}", count(s.count),
                                c.loose == Loose::dowels     ? "dowels"
                                : c.loose == Loose::biscuits ? "biscuits"
                                                             : "tenons");
            else if (what == "across")
                step.says = say("Lay on {} of cauls across, snug: the clamps come next", counted(s.count, "pair", "pairs"));
            else if (what == "set") step.says = say("Bring {} together", counted(s.count, "joint", "joints"));
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

std::vector<CardStep> rod_card(const JoinPlan& p, const JoinChoices& c, const MakeUpChoices& how, double length) {
    std::vector<CardStep> out;
    if (p.rods.empty()) return out;
    const double n = static_cast<double>(p.rods.size());
    double shortest = 1e300;
    double longest = 0;
    for (const Rod& r : p.rods) shortest = std::min(shortest, r.length_mm), longest = std::max(longest, r.length_mm);
    out.push_back({"set out",
                   say("{} of {}, from {} to {} long", counted(n, "rod", "rods"), fine(how.rod_mm), fine(shortest), fine(longest)),
                   say("each with its number from the left end; drill, guide, straight edge, square, quick resin, blocks"), 900});
    out.push_back({"polish", say("Polish the rods, ends rounded"), say("after this nobody reaches them; wrap them in paper"), 300 * n});
    out.push_back(
        {"banks", say("Finish both banks"), say("sanded and oiled now, glue kept off the holes; after this nobody reaches them"), 3600});
    out.push_back({"mark", say("Both halves side by side, ends level: one straight edge over both banks at each rod"),
                   say("square to the joint line, never along the bends"), 120 * n});
    for (std::size_t i = 0; i < p.rods.size(); ++i) {
        const Rod& r = p.rods[i];
        out.push_back({"drill " + std::to_string(i + 1),
                       say("Rod {}, {} from the left end: drill {} deep into both banks", count(static_cast<double>(i) + 1),
                           mm(r.u_mm + length / 2), fine(how.rod_depth_mm)),
                       c.washer_mm > 0 ? say("through the guide, the washer of {} under it on one bank only; {} of gap between",
                                             fine(c.washer_mm), fine(r.gap_mm))
                                       : say("through the guide; {} of gap between", fine(r.gap_mm)),
                       240});
    }
    out.push_back({"dry run", say("Dry: all rods into one half, the other half slid on"),
                   say("read the width at both ends; a rod that binds is drilled again, not hammered"), 1200});
    CardStep glue{"glue", say("Quick resin into one bank's holes only, rods in to their marks"),
                  say("the other bank stays dry: the halves move with the seasons"), 60 * n};
    out.push_back(glue);
    CardStep slide{"slide", say("Slide the other half on, both ends together"), say("blocks as wide as the river at both ends"), 300};
    slide.after = "glue";
    slide.until_s = p.open_min * 60;
    slide.late = say("The resin pulls by now: leave the rods in their bank to set, slide the other half on after");
    out.push_back(slide);
    CardStep check{"check", say("Faces level, ends level, both diagonals alike"), say("weights on, nothing clamped across"), 300};
    out.push_back(check);
    CardStep set{"set", say("Blocks out"), say("it was left overnight"), 300};
    set.after = "slide";
    set.from_s = 12 * 3600;
    out.push_back(set);
    return out;
}

}  // namespace yb
