// Paper and ink: every colour, font and stroke of the program, in one place.
#pragma once

#include <QColor>
#include <QFont>
#include <QPalette>
#include <QString>

#include <string>

#include "core/ground/figure/figure.h"

class QApplication;
class QPainter;
class QRectF;

namespace yb::theme {

struct Palette {
    QColor paper{"#F3EFE6"}, slip{"#FBF9F4"}, bench{"#E4DCCB"}, ink{"#24211D"}, pencil{"#6E675C"};
    QColor faint{"#BDB29B"}, rule{"#CFC6B4"};
    QColor chalk{"#2F5D7C"}, brass{"#A9792B"}, brass_dark{"#7E5A1E"};
    QColor madder{"#A63A2B"}, ochre{"#B9821F"}, moss{"#4F6B3A"};
    QColor madder_wash{"#F5E4DE"}, ochre_wash{"#F6EDD6"}, moss_wash{"#EAEEDF"};
    QColor wood{"#D6B886"}, wood_edge{"#5C4630"}, steel{"#7D8790"}, resin{"#5E8388"};
    QColor crack{44, 32, 22, 225}, knot{92, 58, 32, 190}, knot_heart{70, 42, 22, 150}, soft{120, 104, 70, 120}, flaw{86, 58, 34, 200},
        flaw_rim{44, 32, 22};
    QColor shadow{60, 46, 28, 11}, wood_unseen{214, 184, 134}, photo_ground{"#77797c"}, none{Qt::transparent};
    // On paper that is printed.
    QColor printed_slab{"#F0E6D2"}, printed_leaf{"#DCC79C"}, printed_next_leaf{"#CDB583"}, printed_resin{"#9DB9CC"},
        printed_panel{232, 226, 214}, page_shadow{0, 0, 0, 40};
};
const Palette& colours();

/// Loads the shipped fonts and dresses the application.
void apply(QApplication& app);

/// Text size against the designed one, 1 to 2. Set it before any window is made.
void set_text_scale(double scale);
/// Pixels that have to grow with the text.
int grown(double px);

/// Humanist sans for text, slab serif for figures; `points` at 100 % text size.
QFont text(double points, bool strong = false);
QFont figures(double points, bool light = false);

/// Heat in one warm ramp, from 0 (the air) to 1.
QColor heat(double share);
/// What a wood looks like that nobody photographed: early and late wood of its rings, the edge of a slab.
struct WoodTone {
    QColor early, late, edge;
};
WoodTone tone_of(const std::string& species);
QColor ink_of(Severity severity);

/// The sign of a severity as a shape, never colour alone: square stop, triangle watch, round note.
void draw_sign(QPainter& painter, Severity severity, const QRectF& box);

}  // namespace yb::theme
