// Money: what a top costs, what it is offered for, what an hour of it earns. Sums in exact decimals, to the hundredth of whatever is paid
// with.
//
// A line is its amount (to the thousandth) times its price, rounded half up; every sum adds rounded lines, so that what stands on paper
// adds up. Each amount is asked of the step that knows it (needs.h); hours of the operations. What has no price is in no sum, and is named.
#pragma once

#include <cstdint>
#include <map>
#include <optional>
#include <string>
#include <vector>

#include "core/ground/figure/figure.h"
#include "core/shop/job/needs.h"

namespace yb {

/// Hundredths of a unit of currency.
using Cents = std::int64_t;
/// "1284.50".
std::string in_decimals(Cents c);
/// An amount to the thousandth times a price as it was typed, exactly, rounded half up to the hundredth. @throws std::invalid_argument for
/// what is no number, or beyond nine million million.
Cents times_price(double amount, double price);
/// So many hundredths of it, rounded half up. @param pct as typed.
Cents percent_of(Cents c, double pct);

struct MoneyLine {
    std::string kind;  ///< key_of(NeedKind), or "hours"
    std::string key;   ///< of the need, or of whose hours of which step
    std::string what;
    double amount = 0;
    const char* unit = "pcs";
    std::optional<double> price;  ///< of a unit
    Cents sum = 0;                ///< 0 without a price
};

struct Money {
    std::vector<MoneyLine> lines;
    std::vector<std::string> missing;  ///< what has no price: in no sum
    Cents parts = 0;                   ///< all lines
    Cents hours = 0;                   ///< … of them hours
    Cents overhead = 0, cost = 0;      ///< parts and overhead
    Cents margin = 0, net = 0;         ///< of the offer; the offer before tax
    Cents tax = 0, offer = 0;
    double hands_h = 0;               ///< of the maker
    std::optional<Cents> hour_earns;  ///< what is left of the offer before tax for each of them, once all else is paid
    std::vector<Figure> figures;      ///< with their workings
};

/// Hours an operation really took, by its key; those that are not named are as planned.
using RealHours = std::map<std::string, double>;

/// The money of a plan. @param real none: planned.
Money money_of(const Plan& plan, const Job& job, const Shop& shop, const RealHours* real = nullptr);

/// What is to be bought for a job: of each thing what is used, what is on the shelf, what is bought in whole kits, and its cost.
struct ShoppingLine {
    Need need;
    std::optional<Cents> cost;
};
std::vector<ShoppingLine> shopping_list(const Plan& plan, const Job& job, const Shop& shop);
/// The same as CSV: kind,what,needed,unit,on_shelf,to_buy,price,cost.
std::string shopping_csv(const std::vector<ShoppingLine>& list);

}  // namespace yb
