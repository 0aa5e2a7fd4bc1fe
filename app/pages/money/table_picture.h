// The client's picture: the laid top as it will look – its own wood, wetted by its finish, resin in its colour with the banks showing below
// it – from above, or on its base beside a chair, turned with the mouse.
#pragma once

#include <memory>

#include <QImage>
#include <QWidget>

#include "app/kit/bench/top_picture.h"
#include "core/shop/picture/scene.h"

namespace yb {

class Pictures;
struct Job;
struct Plan;

/// The upper face, finished, so many px a millimetre; transparent outside. @param corner where its upper left pixel lies in the top's
/// frame.
QImage finished_top(TopPicture& tops, const Plan& plan, const Job& job, double px_mm, Vec2* corner);

/// In perspective. @param flat of finished_top(). @param ground false: nothing but the top, transparent: for measuring it.
QImage table_picture(const Plan& plan, const Job& job, const QImage& flat, Vec2 corner, double px_mm, const Eye& eye, bool chair,
                     bool ground = true);

class TablePicture : public QWidget {
    Q_OBJECT
  public:
    explicit TablePicture(Pictures& pictures, QWidget* parent = nullptr);
    /// @param plan its top is ready; none: nothing is shown.
    void show_table(std::shared_ptr<const Plan> plan, std::shared_ptr<const Job> job);
    void from_above(bool above);
    void with_chair(bool chair);
    const Eye& eye() const { return eye_; }
    /// At any size: for a file and the offer.
    QImage picture(QSize size);

  protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* e) override;
    void mouseMoveEvent(QMouseEvent* e) override;
    void keyPressEvent(QKeyEvent* e) override;
    QSize sizeHint() const override { return {480, 300}; }

  private:
    void turn(double by_deg, double lift_deg);
    const QImage& flat(double px_mm);

    TopPicture tops_;
    std::shared_ptr<const Plan> plan_;
    std::shared_ptr<const Job> job_;
    QImage flat_;
    double flat_scale_ = 0;
    Vec2 corner_;
    Eye eye_;
    bool chair_ = true, above_ = false;
    QPointF held_;
};

}  // namespace yb
