// All slabs of the shop standing at one common scale.
#pragma once

#include <QWidget>

#include "app/session/session.h"

namespace yb {

class RackRow : public QWidget {
    Q_OBJECT
  public:
    explicit RackRow(Session& session, QWidget* parent = nullptr);
    /// Where a slab stands, px; empty for one that is not there.
    QRectF place_of(const QString& slab_id) const;

  protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* e) override;
    void keyPressEvent(QKeyEvent* e) override;

  private:
    struct Standing {
        QString id, name, about;
        Ring ring;
        Box box;
        QColor fill, edge;
        QRectF place;
    };
    void rebuild();
    void lay_out();

    Session& session_;
    std::vector<Standing> slabs_;
    std::map<std::string, Slab> built_for_;
    double scale_ = 0.05;
};

}  // namespace yb
