// What a group of the shop's page is about, drawn from its own numbers.
#pragma once

#include <functional>

#include <QWidget>

#include "app/ground/session/session.h"

namespace yb {

/// A picture that is drawn anew whenever the shop changes.
class ShopPicture : public QWidget {
    Q_OBJECT
  public:
    using Draw = std::function<void(QPainter&, const QRectF&, const Session&)>;
    ShopPicture(Session& session, const QString& name, Draw draw, QWidget* parent = nullptr);

  protected:
    void paintEvent(QPaintEvent* e) override;
    Session& session_;

  private:
    Draw draw_;
};

/// The week: hours worked, day by day.
void draw_week(QPainter& p, const QRectF& rect, const Session& session);
/// The sled on its rails, cut across, its numbers on it.
void draw_sled(QPainter& p, const QRectF& rect, const Session& session);
/// What the other machines take, mouth below mouth; what is not there dashed.
void draw_machines(QPainter& p, const QRectF& rect, const Session& session);
/// Shims and boards as they lie in their box, bushings, channel sections.
void draw_stock(QPainter& p, const QRectF& rect, const Session& session);
/// Every finish on one rule of hours: its coats, and the waiting after each until it is handled.
void draw_finishes(QPainter& p, const QRectF& rect, const Session& session);
/// Minutes a square metre, grit by grit, as bars.
void draw_sanders(QPainter& p, const QRectF& rect, const Session& session);
/// A litre of each resin and finish, and a square metre made flat elsewhere, as long as they cost.
void draw_prices(QPainter& p, const QRectF& rect, const Session& session);

/// The shop's air through the year: humidity and temperature, a point a month that is dragged up or down.
class AirPicture : public ShopPicture {
    Q_OBJECT
  public:
    explicit AirPicture(Session& session, QWidget* parent = nullptr);
    /// Where a month's point stands, of the humidity or the temperature.
    QPointF point(int month, bool humidity) const;

  protected:
    void mousePressEvent(QMouseEvent* e) override;
    void mouseMoveEvent(QMouseEvent* e) override;
    void mouseReleaseEvent(QMouseEvent* e) override;

  private:
    QRectF plot() const;
    void draw_air(QPainter& p);

    Climate air_;     ///< as it is dragged
    int month_ = -1;  ///< under the hand; −1: none
    bool humidity_ = true;
};

}  // namespace yb
