#include "app/application.h"

#include "app/slow/runner.h"

namespace yb {

bool Application::notify(QObject* receiver, QEvent* event) {
    try {
        return QApplication::notify(receiver, event);
    } catch (...) {
        Q_EMIT trouble(tr("That could not be done: %1. Nothing that was typed is lost.").arg(sentence_of_exception()));
        return true;
    }
}

}  // namespace yb
