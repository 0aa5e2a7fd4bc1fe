// Paper and ink: every colour, font and stroke of the program, in one place.
#pragma once

#include <QColor>
#include <QFont>
#include <QPalette>
#include <QString>

#include "core/figure/figure.h"

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
QColor ink_of(Severity severity);
QColor wash_of(Severity severity);

/// The sign of a severity as a shape, never colour alone: square stop, triangle watch, round note.
void draw_sign(QPainter& painter, Severity severity, const QRectF& box);

}  // namespace yb::theme
