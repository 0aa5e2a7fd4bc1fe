// What the book's readings are drawn against: the drying forecast with its band, what the shop's air lets wood settle to, the simulation of
// a pour, the rest between two passes, hours planned.
#pragma once

#include <string>
#include <vector>

#include "core/shop/book/book.h"

namespace yb {

struct Documents;
struct Plan;

struct PlotLine {
    std::string label;
    std::vector<std::pair<double, double>> points;  ///< x as the plot has it, y in its unit
    bool dots = false;                              ///< readings; else a line that is worked out
    std::vector<std::int64_t> lines{};              ///< of readings: the book's line each came from
};
struct BookPlot {
    std::string key;  ///< "moisture", "air", "rest", "pour", "hours"
    std::string title, unit;
    std::string start;  ///< ISO date that x counts from, in days; empty: x is in hours since the pour, or one bar after the other
    std::vector<PlotLine> lines;
    std::vector<std::pair<double, double>> low, high;  ///< a band; empty: none
    std::vector<std::string> bars;                     ///< of "hours": what each bar is
    std::string note;                                  ///< a sentence where there is nothing to draw, or what was left out
};

/// The plots there are: key and name, in order.
const std::vector<std::pair<const char*, const char*>>& book_plots();

/// A plot of a job from its book and its plan. @param lines of the whole shop. @param plan may be null: readings alone are drawn then.
/// @throws std::invalid_argument for a plot that nobody knows.
BookPlot plot_of(const std::string& key, const std::vector<BookLine>& lines, const Documents& docs, const std::string& job,
                 const Plan* plan);

}  // namespace yb
