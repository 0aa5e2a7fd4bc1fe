// Instruments that are listened to, several at once: whatever one sends is shown large, goes where the cursor is, can be refused, and
// stands in the book with what it came from. A flood is survived: what comes faster than it can be read is counted, not shown.
#pragma once

#include <functional>
#include <memory>
#include <vector>

#include <QElapsedTimer>
#include <QFrame>
#include <QPointer>
#include <QTimer>

#include "app/ground/probe.h"
#include "core/ground/measure/measure.h"

class QLabel;
class QLineEdit;
class QPushButton;

namespace yb {

class Session;

/// What an instrument has read, as a measure.
struct Reading {
    Quantity value;
    QString what;  ///< "moisture", "length" …
    QString unit;  ///< of the book
    QString from;  ///< the instrument's name
};

class Instruments : public QFrame {
    Q_OBJECT
  public:
    explicit Instruments(Session& session, QWidget* over);
    /// Listens to one more: a serial line, a file or a pipe. @returns what is wrong, or nothing.
    QString listen(const QString& line);
    void let_go_all();
    int listening() const;
    /// As if it had come from an instrument: shown, and put where the cursor is.
    void take(const Reading& reading);
    const Reading& last() const { return last_; }

  Q_SIGNALS:
    void said(const QString& sentence, bool trouble);
    /// A scale's, at once: whoever weighs a batch watches it.
    void weighed(double g);

  protected:
    bool eventFilter(QObject* watched, QEvent* e) override;

  private:
    void arrived(Probe* from, const QString& what, Quantity value, const QString& unit);
    void show_last();
    void keep();
    void refuse();
    void place();

    Session& session_;
    std::vector<Probe*> probes_;
    QLabel *figure_, *about_;
    QPushButton *keep_, *refuse_;
    QPointer<QLineEdit> line_;  ///< it was put there
    QString was_;               ///< what stood there before
    Reading last_;
    QElapsedTimer shown_at_;
    QTimer soon_;
    int passed_over_ = 0;
};

}  // namespace yb
