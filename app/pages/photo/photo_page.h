// A photograph: mark four corners of something of known size, let the slab be found, paint where it errs, take it.
#pragma once

#include <optional>

#include <QImage>
#include <QWidget>

#include "app/ground/session/session.h"
#include "vision/photo.h"

class QLabel;
class QPushButton;

namespace yb {

class LongWork;
class MeasureField;

/// The photograph with its corners, strokes and the outline found.
class PhotoCanvas : public QWidget {
    Q_OBJECT
  public:
    explicit PhotoCanvas(QWidget* parent = nullptr);
    void show_photo(const QImage& photo);
    void show_outline(const std::optional<PhotoResult>& result);
    /// What is known in it: a rectangle by its four corners, or two lengths, one along and one across, by their ends.
    enum class Known { rectangle, lengths };
    Known known = Known::rectangle;
    std::array<Vec2, 4> corners;  ///< px of the photograph; of lengths: both ends along, both ends across
    std::vector<Stroke> strokes;
    enum class Brush { none, slab, not_slab };
    Brush brush = Brush::none;
    /// Where a place of the photograph is on this widget.
    QPointF shown(Vec2 px) const;

  Q_SIGNALS:
    void changed();

  protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* e) override;
    void mouseMoveEvent(QMouseEvent* e) override;
    void mouseReleaseEvent(QMouseEvent*) override;
    void resizeEvent(QResizeEvent*) override { scaled_ = {}; }

  private:
    double scale() const;
    QPointF origin() const;
    Vec2 photo_px(QPointF p) const;

    QImage photo_;
    QPixmap scaled_;
    std::optional<PhotoResult> result_;
    int held_ = -1;
};

class PhotoPage : public QWidget {
    Q_OBJECT
  public:
    PhotoPage(Session& session, LongWork& work, QWidget* parent = nullptr);
    /// Reads a photograph in the background, the way up it was taken; opened() when it is there. What is no picture is said
    /// by the work's trouble(), and what was open stays.
    void open(const QString& path);
    PhotoCanvas& canvas() { return *canvas_; }

  Q_SIGNALS:
    void opened();
    void back();
    void say(const QString& text, bool trouble);
    void taken(const QString& key);  ///< a picture was kept under this key

  private:
    void find();
    void take(bool other_face);
    void refresh();

    Session& session_;
    LongWork& work_;
    PhotoCanvas* canvas_;
    QLabel *title_, *about_;
    QPushButton *find_, *new_slab_, *other_face_;
    std::vector<std::pair<MeasureField*, double*>> fields_;
    QLabel *what_ = nullptr, *width_label_ = nullptr, *height_label_ = nullptr;
    double width_mm_ = 1000, height_mm_ = 500, tolerance_mm_ = 1;
    Picture picture_;
    std::string name_;
    std::optional<PhotoResult> result_;
};

}  // namespace yb
