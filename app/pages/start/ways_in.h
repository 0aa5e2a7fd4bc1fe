// An empty rack: the ways a slab comes in, as large pictures where the slabs will stand.
#pragma once

#include <QWidget>

namespace yb {

class WaysIn : public QWidget {
    Q_OBJECT
  public:
    explicit WaysIn(QWidget* parent = nullptr);

  Q_SIGNALS:
    void tape();
    void photograph();
    void scan();
    void drawing();
    void list();
    void log();
};

}  // namespace yb
