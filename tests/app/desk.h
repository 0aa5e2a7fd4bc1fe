// A desk to drive the program at: opens it on a shop of its own, clicks, types, drags and reads.
#pragma once

#include <QApplication>
#include <QComboBox>
#include <QDialog>
#include <QInputDialog>
#include <QLabel>
#include <QLineEdit>
#include <QProcess>
#include <QPushButton>
#include <QScrollArea>
#include <QTableWidget>
#include <QTemporaryDir>
#include <QTest>
#include <QTimer>
#include <QWindow>

#include <catch2/catch.hpp>

#include "app/ground/slow/long_work.h"
#include "app/kit/bench/bench.h"
#include "app/kit/slip/slip.h"
#include "app/main_window.h"
#include "tests/app/grown_demo.h"
#include "tests/everything.h"

namespace yb {

struct Desk {
    QTemporaryDir dir;
    std::unique_ptr<MainWindow> window = std::make_unique<MainWindow>();

    explicit Desk(bool demo = true) {
        if (demo) {
            REQUIRE(QFile::copy(grown_demo(), shop()));
            window->open_shop(shop());
        }
        show();
    }
    QString shop() const { return dir.filePath("a.shop"); }
    void show() {
        window->resize(1280, 800);
        window->show();
        REQUIRE(QTest::qWaitForWindowExposed(window.get()));
    }
    /// Ends the program and starts it again on the same shop.
    void restart() {
        window = std::make_unique<MainWindow>();
        window->open_shop(shop());
        show();
    }
    Session& session() { return window->session(); }
    /// What the slip makes a moment later stands there now.
    void settle() {
        if (auto* slip = window->findChild<Slip*>()) slip->build_form();
    }
    template <class W>
    W* find(const char* name) {
        W* w = window->findChild<W*>(name);
        if (!w) {
            settle();
            w = window->findChild<W*>(name);
        }
        INFO(name);
        REQUIRE(w);
        return w;
    }
    /// Opens the lines of the slip that fold it away, as a hand would.
    void reveal(QWidget* w) {
        std::vector<QPushButton*> lines;
        for (QWidget* p = w->parentWidget(); p; p = p->parentWidget())
            if (const QString fold = p->property("fold").toString(); !fold.isEmpty() && p->isHidden())
                for (QPushButton* line : p->parentWidget()->findChildren<QPushButton*>(fold, Qt::FindDirectChildrenOnly))
                    lines.push_back(line);
        for (auto line = lines.rbegin(); line != lines.rend(); ++line) (*line)->click();
        if (!lines.empty()) QApplication::processEvents();
    }
    /// What belongs to a thing is on the slip while one of its kind is picked: goes through them with › until it is there.
    template <class W>
    W* seek(const char* name) {
        if (!window->findChild<W*>(name)) settle();
        auto* after = window->findChild<QPushButton*>("slip_after");
        for (std::size_t i = 0; !window->findChild<W*>(name) && after && i <= session().things().size(); ++i) {
            after->click();
            settle();
        }
        return find<W>(name);
    }
    void pick(const char* thing) {
        session().pick(thing);
        QApplication::processEvents();
        REQUIRE(session().picked() == thing);
    }
    void click(const char* name) {
        auto* button = seek<QPushButton>(name);
        reveal(button);
        // What lies further down on the slip is scrolled to first.
        if (auto* slip = window->findChild<QScrollArea*>("slip"); slip && slip->isAncestorOf(button)) {
            QTest::qWait(1);
            slip->ensureWidgetVisible(button);
            QApplication::processEvents();
        }
        QTest::mouseClick(button, Qt::LeftButton);
        QApplication::processEvents();
    }
    /// Waits for the work in the background that was begun last.
    void wait() { window->long_work().wait(); }
    /// What the slip says of the top is there while nothing is picked.
    QString text(const char* name) {
        if (!window->findChild<QLabel*>(name)) session().pick({});
        return find<QLabel>(name)->text();
    }
    /// Keys as a hand presses them: they go to the window that is active, wherever in it the focus is. `\t` is Tab, `\n` Enter.
    void keys(const QString& what) {
        for (const QChar c : what) {
            const char key = c.toLatin1();
            if (c == '\t') press(Qt::Key_Tab);
            else if (c == '\n') press(Qt::Key_Return);
            else if (c == '\b') press(Qt::Key_Backspace);
            else if (key > 0) QTest::keyClick(active(), key), QApplication::processEvents();
            else sent(c);
        }
    }
    void press(Qt::Key key, Qt::KeyboardModifiers with = Qt::NoModifier) {
        QTest::keyClick(active(), key, with);
        QApplication::processEvents();
    }
    /// A dialog that will be asked waits for the hand: what the hand does is done once it stands there with the keys.
    void once_asked(std::function<void()> hand) {
        auto* waits = new QTimer(window.get());
        waits->setInterval(20);
        QObject::connect(waits, &QTimer::timeout, waits, [this, hand, waits] {
            auto* dialog = qobject_cast<QDialog*>(QApplication::activeModalWidget());
            if (!dialog || !dialog->isVisible() || QGuiApplication::focusWindow() != dialog->windowHandle()) return;
            waits->stop();
            hand();
        });
        waits->start();
    }
    /// The window that has the keys: this one, or a dialog in front of it.
    QWindow* active() {
        if (QGuiApplication::focusWindow() == nullptr) {
            window->activateWindow();
            REQUIRE(QTest::qWaitForWindowActive(window.get()));
        }
        REQUIRE(QGuiApplication::focusWindow());
        return QGuiApplication::focusWindow();
    }
    /// A click into a line, all of it marked; what is typed goes there because it has the focus.
    QLineEdit* into(const char* name) {
        auto* line = seek<QLineEdit>(name);
        reveal(line);
        if (auto* slip = window->findChild<QScrollArea*>("slip"); slip && slip->isAncestorOf(line)) {
            QApplication::processEvents();
            slip->ensureWidgetVisible(line);
            QApplication::processEvents();
        }
        window->activateWindow();
        active();
        QTest::mouseClick(line, Qt::LeftButton);
        if (!line->hasFocus()) line->setFocus();  // below the edge of the screen
        press(Qt::Key_A, Qt::ControlModifier);
        return line;
    }
    void type(const char* name, const char* what) {
        QLineEdit* line = into(name);
        if (*what == '\0') press(Qt::Key_Delete);
        keys(QString::fromUtf8(what));
        // It may have gone with what was typed; otherwise Enter ends it.
        if (QApplication::focusWidget() == line) press(Qt::Key_Return);
    }
    void drag(QPointF from, QPointF to) {
        Bench& b = window->bench();
        QTest::mousePress(&b, Qt::LeftButton, {}, from.toPoint());
        for (int i = 1; i <= 4; ++i) {
            const QPointF at = from + (to - from) * i / 4;
            QMouseEvent move(QEvent::MouseMove, at, b.mapToGlobal(at), Qt::NoButton, Qt::LeftButton, Qt::NoModifier);
            QApplication::sendEvent(&b, &move);
        }
        QTest::mouseRelease(&b, Qt::LeftButton, {}, to.toPoint());
        QApplication::processEvents();
    }
    /// Clicks a cell of the tape table and types it: the click is all that is needed for the keys to go there.
    void cell(int row, int column, const char* what) {
        auto* t = find<QTableWidget>("tape_table");
        t->scrollToItem(t->item(row, column));
        QApplication::processEvents();
        QTest::mouseClick(t->viewport(), Qt::LeftButton, {}, t->visualItemRect(t->item(row, column)).center());
        REQUIRE(t->currentRow() == row);
        REQUIRE(t->currentColumn() == column);
        if (*what == '\0') return press(Qt::Key_Delete);
        keys(QString::fromUtf8(what) + "\n");
    }

  private:
    /// A character that no key of every keyboard has.
    void sent(QChar c) {
        active();
        QWidget* to = QApplication::focusWidget();
        REQUIRE(to);
        QKeyEvent down(QEvent::KeyPress, 0, Qt::NoModifier, QString(c));
        QApplication::sendEvent(to, &down);
    }
};

/// The steps of the work by the names of their tabs.
inline const std::vector<const char*> steps_of_work{"step_rack", "step_lay",  "step_flat",  "step_fill",
                                                    "step_pour", "step_join", "step_under", "step_skin"};

/// Waits for something to become so, on a machine however slow: a test asks no wall clock how long that may take.
template <class F>
bool becomes(F so) {
    return QTest::qWaitFor(so, 300000);
}

/// The text of a PDF, as it is laid out on its pages.
inline QString text_of_pdf(const QString& path) {
    QProcess read;
    read.start("pdftotext", {"-layout", path, "-"});
    REQUIRE(read.waitForFinished());
    return QString::fromUtf8(read.readAllStandardOutput());
}

}  // namespace yb
