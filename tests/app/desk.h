// A desk to drive the program at: opens it on a shop of its own, clicks, types, drags and reads.
#pragma once

#include <QApplication>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QProcess>
#include <QPushButton>
#include <QScrollArea>
#include <QTableWidget>
#include <QTemporaryDir>
#include <QTest>

#include <catch2/catch.hpp>

#include "app/bench/bench.h"
#include "app/bring/long_work.h"
#include "app/main_window.h"
#include "app/slip/slip.h"
#include "tests/everything.h"

namespace yb {

struct Desk {
    QTemporaryDir dir;
    std::unique_ptr<MainWindow> window = std::make_unique<MainWindow>();

    explicit Desk(bool demo = true) {
        if (demo) window->open_demo(shop());
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
    void type(const char* name, const char* what) {
        auto* line = seek<QLineEdit>(name);
        reveal(line);
        line->setFocus();
        line->selectAll();
        QTest::keyClicks(line, what);
        QTest::keyClick(line, Qt::Key_Return);
        QApplication::processEvents();
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
    /// Types one cell of the tape table by keyboard.
    void cell(int row, int column, const char* what) {
        auto* t = find<QTableWidget>("tape_table");
        t->setFocus();
        t->setCurrentCell(row, column);
        t->editItem(t->item(row, column));
        QApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);  // the editor before this one
        auto* editor = t->findChild<QLineEdit*>();
        REQUIRE(editor);
        editor->selectAll();
        QTest::keyClicks(editor, what);
        QTest::keyClick(editor, Qt::Key_Return);
        QApplication::processEvents();
    }
};

/// The text of a PDF, as it is laid out on its pages.
inline QString text_of_pdf(const QString& path) {
    QProcess read;
    read.start("pdftotext", {"-layout", path, "-"});
    REQUIRE(read.waitForFinished());
    return QString::fromUtf8(read.readAllStandardOutput());
}

}  // namespace yb
