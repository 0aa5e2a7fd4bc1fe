// Money, what the shop and the maker set: what an hour and a litre cost, what comes on top, what else is bought for a job.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/ground/fields/fields.h"

namespace yb {

/// What the shop pays for a unit; empty: not said, and then it is not in any sum.
struct Prices {
    std::optional<double> glue_l, glued_piece;        ///< a litre; a loose tenon, dowel or biscuit
    std::optional<double> panel, tape_roll, caulk_m;  ///< of the form
    std::optional<double> cutter_m2;                  ///< a cutter's wear, each square metre it makes flat
    std::optional<double> pigment_kg;
    std::optional<double> bolt, insert;      ///< with its washer; pressed or screwed in
    std::optional<double> channel_m, plate;  ///< a metre of steel channel; one plate
    std::optional<double> base_l;            ///< a litre of the base's wood
    bool operator==(const Prices&) const = default;
};

struct ShopMoney {
    std::string currency;                     ///< a word or sign, any; empty: sums stand alone
    std::optional<double> hour, helper_hour;  ///< of the maker, of a second pair of hands (empty: like the maker's)
    double overhead_pct = 0;                  ///< of rent, power, insurance, on the cost
    double margin_pct = 0;                    ///< of the offer before tax: below 100
    double tax_pct = 0;                       ///< on the offer
    double order_days = 5;                    ///< from ordering something to having it
    double valid_days = 30;                   ///< an offer stands so long
    Prices prices;
    bool operator==(const ShopMoney&) const = default;
};

/// How a slab is paid for.
enum class SlabCost {
    whole,  ///< bought for the job; what goes back to the rack is credited by its share
    share   ///< the part of it that does not go back to the rack
};

/// Something else that is paid for a job: a delivery, glass, a turner.
struct ExtraCost {
    std::string what;
    double amount = 1;
    std::optional<double> price;
    bool operator==(const ExtraCost&) const = default;
};

struct JobMoney {
    SlabCost slabs = SlabCost::whole;
    std::optional<double> base_price;        ///< of a bought base
    std::optional<double> hour, margin_pct;  ///< other than the shop's
    std::vector<ExtraCost> extra;
    std::string not_included;  ///< said on the offer
    bool operator==(const JobMoney&) const = default;
};

inline constexpr auto slab_costs = school("money.slabs", "slabs", "Slabs are paid", &JobMoney::slabs,
                                          Way{SlabCost::whole, "whole", "Bought for it; what is left is credited"},
                                          Way{SlabCost::share, "share", "By the share that is used up"});

void fields(FieldVisitor& v, Prices& p);
void fields(FieldVisitor& v, ShopMoney& m);
void fields(FieldVisitor& v, ExtraCost& e);
void fields(FieldVisitor& v, JobMoney& m);

}  // namespace yb
