// The bench: plan, strip and end view of the work, on the same stations, tied together by the gauge.
#pragma once

#include <array>

#include <QPixmap>
#include <QPointer>
#include <QWidget>

#include "app/kit/bench/step_view.h"
#include "app/kit/bench/top_picture.h"

namespace yb {

class MeasureField;
class Pictures;

class Bench : public QWidget {
    Q_OBJECT
  public:
    Bench(Session& session, Pictures& pictures, QWidget* parent = nullptr);

    void set_step_view(StepView* view);
    /// Only the plan with its stations, for when something else needs the room below.
    void set_plan_only(bool only);
    const BenchMap& map() const { return map_; }
    /// What stands at the end view as it was last painted, and on how many lines.
    const std::pair<QString, int>& end_caption() const { return end_caption_; }
    QString picked() const { return picked_; }
    QSize minimumSizeHint() const override { return {520, 200}; }
    /// Collects points clicked on the plan until the outline is closed (double click, Enter, or a click on
    /// the first point), or paints them with the button held; Esc drops it. @param line it stays open: a crack, a pith.
    void draw_outline(std::function<void(Ring)> done, bool line = false);
    /// Opens the next dimension of this step for typing; false when it has none.
    bool type_dimension();
    /// More room for the plan (or less), a little each time.
    void more_for_plan(bool more);
    /// Both splits as the bench shares by itself.
    void share_room();
    /// What a step draws is another: paint it anew.
    void touch();
    /// Where the labels of the plan stand as last painted; empty rects for those left out.
    const std::vector<QRectF>& label_places() const { return label_places_; }
    /// Where the dial is, px: for tests.
    QRectF dial_place() const { return dial_line(); }
    /// Where a dimension's figure stands, px; empty when it is not drawn.
    QPolygonF dimension_place(const QString& field) const;
    bool drawing() const { return static_cast<bool>(drawn_); }

  Q_SIGNALS:
    void say(const QString& text);
    void plan_only_changed(bool only);

  protected:
    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent*) override;
    void mousePressEvent(QMouseEvent* e) override;
    void mouseMoveEvent(QMouseEvent* e) override;
    void mouseReleaseEvent(QMouseEvent* e) override;
    void mouseDoubleClickEvent(QMouseEvent* e) override;
    void keyPressEvent(QKeyEvent* e) override;
    void wheelEvent(QWheelEvent* e) override;
    /// What can be done now, where the hand is: the actions of the slip.
    void contextMenuEvent(QContextMenuEvent* e) override;
    /// Tab goes from thing to thing, past the last of them on.
    bool focusNextPrevChild(bool next) override;
    bool eventFilter(QObject* watched, QEvent* e) override;

  private:
    void lay_out();
    /// Where the gauge's flag stands.
    QRectF flag() const;
    /// Where the dial is turned, in the line of the strip's title; empty where the step has none.
    QRectF dial_line() const;
    void draw_dial(QPainter& p);
    void turn_dial(double to_px);
    /// The two splits: between plan and what is below it, and between strip and end view (or plan and end view beside it).
    enum class Split { none, below_plan, at_end };
    Split split_at(QPointF p) const;
    void drag_split(Split which, QPointF to);
    void keep_splits() const;
    /// Whether something that may lie on the bench has its picture under this key.
    bool shows_picture(const std::string& key) const;
    /// The plan alone: asked for, or there is no room for more.
    bool only() const;
    /// All that lies on the bench but what is in hand: handles, gauge and what is being drawn.
    void draw_work(QPainter& p);
    void draw_still(QPainter& p);
    void draw_ruler(QPainter& p);
    void draw_slab(QPainter& p);
    void draw_leaves(QPainter& p);
    void draw_patches(QPainter& p);
    void draw_leaf_sections(QPainter& p);
    std::array<double, 4> extent() const;
    QPolygonF section_of(const SlabShape& shape, const std::function<Vec2(double)>& at, const std::vector<Span1>& a,
                         const std::vector<Span1>& b) const;
    /// End grain in a section, in the colours of the face above it. @param at the place on the slab for a place across.
    void draw_grain(QPainter& p, const Slab& slab, const SlabShape& shape, const QPolygonF& cut, const std::function<Vec2(double)>& at);
    void draw_section(QPainter& p);
    void draw_dimensions(QPainter& p);
    void close_editor();
    void open_editor(const Field& field, QPointF middle);
    void draw_gauge(QPainter& p);
    void draw_handles(QPainter& p);
    void draw_outline_so_far(QPainter& p);
    void finish_outline();
    const Handle* handle_at(const std::vector<Handle>& all, QPointF p) const;
    /// The smallest thing at a place of the plan; nullptr for none.
    const Thing* thing_at(QPointF p) const;
    /// Where it lies, px; no smaller than a finger hits.
    QPolygonF area_of(const Thing& t) const;
    /// Takes in hand what lies at a place: the smaller of what can be moved and what can be picked.
    void take_at(QPointF p, const Handle* h);
    void take(const QString& name);
    void nudge(Vec2 by, double turn);
    QPolygonF section() const;
    double station_step() const;

    Session& session_;
    Pictures& pictures_;
    TopPicture tops_;
    StepView* view_ = nullptr;
    BenchMap map_;
    std::pair<QString, int> end_caption_{};
    bool whole_before_ = false;
    bool plan_only_ = false, plan_only_before_ = false;
    /// What stays while things are dragged over it: ruler, slab, and the end grain at the gauge.
    struct StillKey {
        int slab = -1;
        QSize size;
        double scale = 0, x0 = 0, ratio = 0, rise = 0;
        int pictures = 0;
        Units units;
        bool operator==(const StillKey&) const = default;
    };
    QPixmap work_;       ///< as last drawn at rest
    bool stale_ = true;  ///< it is to be drawn anew
    QPixmap still_, end_grain_;
    StillKey still_for_, end_for_;
    double end_gauge_ = 0;
    int pictures_version_ = 0;
    std::vector<std::pair<QPolygonF, Dimension>> dimensions_;  ///< as last painted
    std::vector<QRectF> label_places_;
    std::optional<double> plan_share_;                ///< of the height that the plan ends at, where the hand set it
    std::array<std::optional<double>, 2> end_share_;  ///< of the room below the plan, or beside it, that is the end view's
    Split held_split_ = Split::none;
    QPointer<MeasureField> editor_;
    QString last_typed_;
    std::optional<Handle> held_;
    bool held_gauge_ = false;
    bool held_dial_ = false;
    bool moved_ = false;
    Vec2 from_;
    QString picked_, hover_;      ///< names of handles or keys of things
    bool in_hand_whole_ = false;  ///< what was taken here is being told to the session
    std::function<void(Ring)> drawn_;
    bool drawn_line_ = false;
    std::size_t painted_from_ = 0;
    Ring points_;
    QPointF mouse_;
};

}  // namespace yb
