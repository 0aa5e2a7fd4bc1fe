// What the start page is made of: a large picture with a title and a line, and a small one of a shop last used.
#pragma once

#include <functional>

#include <QAbstractButton>

#include "app/kit/bench/bench_map.h"

class QVBoxLayout;

namespace yb {

/// A map that shows all of a box in the middle of a picture. @param margin_px left free, at both sides together.
BenchMap map_of(const Box& all, const QRectF& picture, double margin_px);

/// A large picture that begins something. The picture is drawn by the program itself.
class StartCard : public QAbstractButton {
    Q_OBJECT
  public:
    using Draw = std::function<void(QPainter&, const QRectF&)>;
    StartCard(const QString& name, const QString& title, const QString& text, Draw picture, int picture_high = 170,
              QWidget* parent = nullptr);
    /// Below the line, for what has to be typed first.
    QVBoxLayout* below() const { return below_; }
    /// Drawn with the line that says: this is what comes next.
    void set_next(bool next) { next_ = next; }

  protected:
    void paintEvent(QPaintEvent*) override;
    void keyPressEvent(QKeyEvent*) override;

  private:
    QString line_;
    Draw picture_;
    QVBoxLayout* below_;
    int high_;
    bool next_ = false;
};

/// Where the day is kept that a shop was last open.
QString last_open_key(const QString& path);

/// A shop last used: what it holds is read beside.
class RecentCard : public QAbstractButton {
    Q_OBJECT
  public:
    RecentCard(const QString& name, const QString& path, QWidget* parent = nullptr);
    const QString& path() const { return path_; }
    /// The file is not where it was, or is none.
    bool gone() const { return gone_; }
    const QString& holds() const { return holds_; }

  protected:
    void paintEvent(QPaintEvent*) override;
    void keyPressEvent(QKeyEvent*) override;

  private:
    void read();
    QString path_, holds_, when_;
    QImage picture_;
    bool gone_ = false;
};

}  // namespace yb
