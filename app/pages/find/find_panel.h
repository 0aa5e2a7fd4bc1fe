// Find: type a few letters of a job, a slab or a figure; Enter goes there.
#pragma once

#include <QFrame>

#include "app/ground/session/session.h"

class QLineEdit;
class QListWidget;

namespace yb {

class FindPanel : public QFrame {
    Q_OBJECT
  public:
    FindPanel(Session& session, QWidget* parent);
    void open();

  Q_SIGNALS:
    void nothing(const QString& text);

  protected:
    bool eventFilter(QObject* watched, QEvent* e) override;

  private:
    void collect();
    void narrow(const QString& text);
    void go();

    Session& session_;
    QLineEdit* line_;
    QListWidget* list_;
    struct Place {
        QString text;
        std::function<void()> go;
    };
    std::vector<Place> places_;
};

}  // namespace yb
