// Above every page but the bench, whose top line says it: that the shop's file does not take what is typed, and what can be done.
#pragma once

#include <QFrame>

class QLabel;
class QPushButton;

namespace yb {

class Session;

class FileTrouble : public QFrame {
    Q_OBJECT
  public:
    explicit FileTrouble(Session& session);
    /// @param wanted it is not said elsewhere.
    void refresh(bool wanted);

  Q_SIGNALS:
    void copy_wanted();
    void take_wanted();

  private:
    Session& session_;
    QLabel* says_;
    QPushButton *again_, *copy_, *take_;
};

}  // namespace yb
