// What is bought where some is on the shelf and it is sold in kits, in whatever it is measured in.
#pragma once

namespace yb {

/// @param kit it is sold in so much; 0: as one likes. @returns whole kits for what the shelf lacks.
double to_buy(double amount, double left, double kit);

/// What a job pays for: out of the shelf what it uses, and all that is bought – what stays over of a kit is paid too. Sold as one likes:
/// what is used.
double paid_for(double amount, double left, double kit);

}  // namespace yb
