#include "core/ground/measure/shelf.h"

#include <algorithm>
#include <cmath>

namespace yb {

double to_buy(double amount, double left, double kit) {
    const double more = std::max(0.0, amount - std::max(0.0, left));
    return kit > 0 ? std::ceil(more / kit - 1e-9) * kit : more;
}

double paid_for(double amount, double left, double kit) {
    return kit > 0 ? std::min(amount, std::max(0.0, left)) + to_buy(amount, left, kit) : amount;
}

}  // namespace yb
