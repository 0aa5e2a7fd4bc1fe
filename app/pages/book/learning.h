// Learns the maker's pace anew, beside the work, when a table is delivered or a card was run to its end, and says what is his own from then
// on.
#pragma once

#include <memory>

#include <QObject>

#include "app/ground/session/session.h"
#include "app/ground/slow/runner.h"

namespace yb {

class Learning : public QObject {
    Q_OBJECT
  public:
    explicit Learning(Session& session, QObject* parent = nullptr);

  Q_SIGNALS:
    void learned(const QString& sentence);

  private:
    void look();
    void learn();

    Session& session_;
    QString of_;  ///< the shop that was counted
    std::size_t ended_ = 0;
    std::shared_ptr<Running> learning_;
};

}  // namespace yb
