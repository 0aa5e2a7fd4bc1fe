// What is told of a base: figures (told.cpp), what is to be minded (minded.cpp), whether it fits (fits.cpp), choices (ways.cpp).
#pragma once

#include "core/steps/under/told.h"

namespace yb {

class UnderTeller {
  public:
    UnderTeller(const UnderInputs& in, const UnderKnown& of, UnderPlan& p) : in_(in), top_(in.top), frame_(in.top.bench), of_(of), p_(p) {}

    void tell() {
        figures();
        cautions();
        choices();
    }

  private:
    const Slot* longest() const;
    void figures();
    /// The hole that travels furthest, as what holds it there asks for it.
    Figure holding(const Slot& s, std::vector<Given> given, const std::string& handbook) const;
    bool every_pith_known() const;
    /// What each region weighs; fillings of the same resin in one line.
    std::vector<Given> weights() const;
    void add(std::string key, Severity s, Phrase says, std::optional<Vec2> uv = {});
    void cautions();
    void inside_checks();
    /// A channel's pocket from below: longer than the channel.
    Ring pocket(std::size_t channel) const;
    void clash_checks();
    /// What a hole reaches in place of wood: a river, a void that was filled; nullptr where it is wood.
    const Region* instead_of_wood(const Slot& s) const;
    /// Inserts hold in wood: a hole in the open river has nothing, one in resin or in a void that reaches it holds badly.
    void not_in_wood();
    /// Wood Handbook: round the rings it shrinks more than towards the pith; the difference opens at the rim.
    void cross_cut();
    void wood_left();
    void moisture_and_slots();
    /// How wide it gets through the year, in words for who is to live with it.
    void for_the_client();
    void loads();
    /// What holds it lets it go far enough; the base can be built; it stands without rocking; knees, doors.
    void fits();
    /// Bolts of one part nearer to one another than four of their diameters – a starting value – split the wood between them; a part
    /// that is shorter than twice the bolts' distance from its ends has two in one place.
    void bolts_apart();
    /// A channel on one bolt hangs there; on two it has no middle one to be held tight at.
    void few_bolts();
    /// Feet that hang above the floor: legs of unequal length, or a floor that is not flat.
    void standing_level();
    void stair();
    /// A slot has to end before its plate does.
    void slots_on_plates();
    void lifting();
    void choices();
    /// What each way of holding the top asks for at the hole that travels furthest.
    std::vector<Phrase> with_each_fixing() const;
    /// How much the top would move, sawn so.
    std::vector<Phrase> with_each_sawing() const;
    std::vector<Phrase> with_each_bar_joint() const;
    std::vector<Phrase> with_each_base() const;

    const UnderInputs& in_;
    const Top& top_;
    Frame frame_;
    const UnderKnown& of_;
    UnderPlan& p_;
};

}  // namespace yb
