// The maker's pace, a button for each kind of work: what was learned, whether it is used; pressed, it is used or put back.
#pragma once

#include <QWidget>

#include "app/ground/session/session.h"
#include "core/shop/pace/learned.h"

class QVBoxLayout;

namespace yb {

class PaceButtons : public QWidget {
    Q_OBJECT
  public:
    explicit PaceButtons(Session& session, QWidget* parent = nullptr);
    /// @param sure those alone that are worth more than the starting value.
    void show_learned(const Learned& learned, bool sure = false);

  private:
    Session& session_;
    QVBoxLayout* rows_;
};

}  // namespace yb
