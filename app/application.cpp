#include "app/application.h"

#include <QAbstractItemView>
#include <QComboBox>
#include <QKeyEvent>

#include "app/ground/slow/runner.h"

namespace yb {

namespace {
/// True for what starts typing, or looks for an entry, at a bare character. Lines that are typed on claim theirs themselves.
bool takes_characters(const QObject* w) {
    if (qobject_cast<const QComboBox*>(w)) return true;
    const auto* view = qobject_cast<const QAbstractItemView*>(w);
    return view && view->currentIndex().isValid();
}

/// A key that writes something: with Ctrl, Alt or Meta it is a command wherever it is pressed.
bool is_character(const QKeyEvent& key) {
    return !(key.modifiers() & (Qt::ControlModifier | Qt::AltModifier | Qt::MetaModifier)) && !key.text().isEmpty() &&
           key.text().front().isPrint();
}
}  // namespace

bool Application::notify(QObject* receiver, QEvent* event) {
    // Single keys are commands only while nothing that takes characters has the focus.
    if (event->type() == QEvent::ShortcutOverride && takes_characters(receiver) && is_character(*static_cast<QKeyEvent*>(event))) {
        event->accept();
        return true;
    }
    try {
        return QApplication::notify(receiver, event);
    } catch (...) {
        Q_EMIT trouble(tr("That could not be done: %1. Nothing that was typed is lost.").arg(sentence_of_exception()));
        return true;
    }
}

}  // namespace yb
