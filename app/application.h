// The application: whatever is thrown while a gesture is handled is said in a sentence, and the program goes on with all
// that was typed. A bare character goes to what takes one before it is a command.
#pragma once

#include <QApplication>

namespace yb {

class Application : public QApplication {
    Q_OBJECT
  public:
    using QApplication::QApplication;
    bool notify(QObject* receiver, QEvent* event) override;

  Q_SIGNALS:
    void trouble(const QString& sentence);
};

}  // namespace yb
