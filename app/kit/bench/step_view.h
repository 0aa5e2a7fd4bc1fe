// What a step draws on the bench and asks on the slip. A view draws a plan and turns gestures into edits; it
// computes nothing.
#pragma once

#include <functional>
#include <optional>
#include <vector>

#include <QImage>
#include <QPainter>
#include <QString>

#include "app/kit/bench/bench_map.h"
#include "app/kit/fields/field.h"

namespace yb {

class Pictures;

/// Something that can be moved where it lies.
struct Handle {
    QString name;    ///< "top", "shim 2": the key of the thing it moves, where that can be picked
    QString label;   ///< of the revision, "Move the top"
    QPolygonF area;  ///< px
    Vec2 at;         ///< on the slab, for the keyboard
    Qt::CursorShape cursor = Qt::OpenHandCursor;
    /// Shows the job or slab as it would be after dragging from one place to another (session.preview).
    std::function<void(Session&, Vec2 from, Vec2 to)> drag;
    /// Turns it by degrees, where that makes sense.
    std::function<void(Session&, double degrees)> turn{};
};

struct Action {
    QString name, label, tip;
    std::function<void()> run;
    bool enabled = true;
    bool strong = false;  ///< the one to press next
    /// The kinds of things it is about, "joint top": it applies while one of them is picked.
    QString of = QStringLiteral("top");
};

/// Something to look at, known or still a blank.
struct Look {
    QString name, label, says;
    bool known = false;
    bool counted = true;              ///< of "3 of 9 looked at"
    std::function<void()> write;      ///< where it is written down
    std::function<void()> none = {};  ///< looked, and nothing to write: where that can be said
};

/// What can be done now with the picked thing, or with the top; what comes next always.
std::vector<Action> applying(std::vector<Action> all, const Session& s);

/// A dimension drawn on the bench; clicked, its figure can be typed where it stands.
struct Dimension {
    QPointF a, b;    ///< px
    double off = 0;  ///< px to the side of the line from a to b
    Field field;
};

/// A few words beside a place of the plan: they step aside for one another, for dimensions and the gauge. The weightier keep
/// their place; what finds no room is left out, its thing still says it when it is picked.
struct Label {
    QPointF at;  ///< px
    QString text;
    QColor edge;
    double weight = 0;
};

/// What the bench's dial is turned through: the layers that are cut, the hours of a cure, the months of a year.
struct Dial {
    QString says;   ///< where it stands now, in a few words
    int stops = 0;  ///< keys go from one to the next
};

class StepView {
  public:
    virtual ~StepView() = default;
    virtual Step step() const = 0;
    /// What the bench says when there is nothing to draw.
    virtual QString empty_text(const Session& s) const;
    virtual QString strip_title(const Session&) const { return {}; }
    virtual QString end_note(const Session&) const { return {}; }
    virtual double end_rise() const { return 1; }
    /// What the end view shows stands on a floor: it is never laid on edge.
    virtual bool end_upright() const { return false; }
    /// How much of the room below the plan the strip has, the end view the rest.
    virtual double strip_share() const { return 0.43; }
    /// The end view is the finished top, not the slab as it is.
    virtual bool shows_finished() const { return false; }
    /// Of a whole top the leaves as they come out of the log, not the finished top.
    virtual bool shows_leaves() const { return false; }
    virtual void draw_plan(QPainter&, const BenchMap&, const Session&) const {}
    virtual std::vector<Label> labels(const BenchMap&, const Session&) const { return {}; }
    virtual void draw_strip(QPainter&, const BenchMap&, const Session&) const {}
    virtual void draw_end(QPainter&, const BenchMap&, const Session&) const {}
    virtual std::vector<Handle> handles(const BenchMap&, const Session&) const { return {}; }
    /// The key of the thing that lies there in the end view or on the strip; empty: nothing, the gauge goes there.
    virtual QString side_thing(const BenchMap&, const Session&, QPointF) const { return {}; }
    /// The dial beside the strip's title, where the step has one; Session::dial() is where it stands.
    virtual std::optional<Dial> dial(const Session&) const { return {}; }
    virtual std::vector<Dimension> dimensions(const BenchMap&, const Session&) const { return {}; }

    virtual std::vector<Field> fields(const Session&) const { return {}; }
    virtual std::vector<TextField> texts() const { return {}; }
    virtual std::vector<PickField> picks(const Session&) const { return {}; }
    virtual std::vector<Action> actions(Session&) { return {}; }
    /// A checklist that fills; empty: the step has none.
    virtual std::vector<Look> looks(Session&) { return {}; }
    /// Two lines on what the step is for, while there is nothing to say yet; empty: there is.
    virtual QString about(const Session&) const { return {}; }
    virtual QString help() const = 0;
};

/// Drawing shared by the steps.
namespace draw {
/// Where a dimension's figure stands, `off` px to the side of the line between two places; empty where they are too near.
QPolygonF dimension_place(QPointF a, QPointF b, const QString& text, double off);
/// A dimension line with its figure. Returns where the figure stands.
QPolygonF dimension(QPainter& p, QPointF a, QPointF b, const QString& text, double off = 0);
/// Where labels find room inside `within`, clear of what is `taken` and of one another; in their order, empty for those left out.
std::vector<QRectF> room_for(const std::vector<Label>& labels, const QRectF& within, std::vector<QRectF> taken);
/// A paper tag with a line to its place.
void tag(QPainter& p, const Label& label, const QRectF& box);
/// A polyline over the strip: value(x) at stations from x0 to x1, `low`..`high` over the strip's height.
void strip_line(QPainter& p, const BenchMap& map, double x0, double x1, double low, double high, const std::function<double(double)>& value,
                const QPen& pen, const QBrush& below = Qt::NoBrush);
/// A face's picture where it lies, cut to the outline.
void picture(QPainter& p, const BenchMap& map, const QImage& image, const FacePicture& place, const Ring& outline);
/// Fills of the flaws on the show face, dashed outlines for those of the other face. Over a picture, which shows
/// them itself, only their outlines.
void flaws(QPainter& p, const BenchMap& map, const Slab& slab, bool over_picture);
/// A slab as it lies: its underside, its show face with picture or drawn grain, its flaws.
/// @param small the picture's small copy will do. @param light where it comes from, on the slab.
void slab(QPainter& p, const BenchMap& map, Pictures& pictures, const Slab& slab, const SlabShape& shape, double device_ratio, bool small,
          Vec2 light);
/// From the window, over the maker's left shoulder.
inline constexpr Vec2 from_the_window{-0.55, 0.83};
/// What a slab throws on the bench.
void shadow(QPainter& p, const BenchMap& map, const SlabShape& shape);
/// The polygon with as few points as it takes to look the same: outlines have hundreds.
QPolygonF fewer(const QPolygonF& polygon);
/// Strokes a closed line with the painter's solid pen, piece by piece: the rasterizer's work grows with the square of how far a
/// line runs along a row of pixels.
void outline(QPainter& p, const QPolygonF& polygon);
/// Dims everything on the plan outside a ring.
void dim_outside(QPainter& p, const BenchMap& map, const Ring& keep);
}  // namespace draw

}  // namespace yb
