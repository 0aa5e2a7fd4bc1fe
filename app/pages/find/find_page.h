// Find what could be made: the wanted size, a few plain sliders, and tickets with the finished top and what speaks for
// and against it. The search runs beside the work and shows the best so far.
#pragma once

#include <map>
#include <memory>

#include <QAbstractButton>
#include <QTimer>
#include <QWidget>

#include "app/ground/session/session.h"
#include "app/ground/slow/runner.h"
#include "app/kit/bench/small_top.h"
#include "app/kit/fields/field.h"
#include "core/shop/find/find.h"

class QLabel;
class QSlider;
class QCheckBox;
class QHBoxLayout;
class QPushButton;
class QVBoxLayout;

namespace yb {

class FieldForm;

using Boards = std::map<std::string, std::shared_ptr<const BothWays>>;

/// One find: the top drawn small, its kind and slabs, three reasons for and against. Pressed, it becomes the job's.
class Ticket : public QAbstractButton {
    Q_OBJECT
  public:
    Ticket(Session& session, TopPicture& tops, Found found, Boards boards, const WantedTop& top, QWidget* parent = nullptr);
    const Found& found() const { return found_; }
    /// It stands upright among the pins, to be held against its neighbours.
    void set_pinned(bool pinned);
    bool pinned() const { return pinned_; }

  Q_SIGNALS:
    void pin(bool on);

  protected:
    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent*) override;
    QSize sizeHint() const override;

  private:
    SmallTop small() const;
    QPushButton* pin_;
    bool pinned_ = false;
    Session& session_;
    TopPicture& tops_;
    Found found_;
    Boards boards_;
    WantedTop top_;
};

class FindPage : public QWidget {
    Q_OBJECT
  public:
    FindPage(Session& session, Pictures& pictures, QWidget* parent = nullptr);
    /// Begins to search, as the job stands now.
    void search();
    /// Waits for the search and its drawings: for tests and pictures.
    void wait();

  Q_SIGNALS:
    void back();

  protected:
    void showEvent(QShowEvent* e) override;

  private:
    void show_found(const std::vector<Found>& found, const Boards& boards, const WantedTop& top, bool done);
    void paint_tickets();
    FindOrder order() const;
    Field wanted(const char* path, const QString& name, double WantedTop::*what);
    Ticket* ticket(const Found& f, const Boards& boards, const WantedTop& top);
    void take(const Found& f, const WantedTop& top);
    void pin(const Found& f, const Boards& boards, const WantedTop& top);
    void let_go(Ticket* t);

    Session& session_;
    TopPicture tops_;
    FieldForm* form_;
    std::map<QString, QSlider*> sliders_;
    std::map<QString, QCheckBox*> kinds_;
    QLabel* about_;
    QPushButton* stop_;
    QVBoxLayout* list_;
    QHBoxLayout* pins_row_ = nullptr;
    std::vector<Ticket*> pins_;
    int pinned_ = 0;   ///< so many were pinned ever
    WantedTop first_;  ///< what is looked for before there is a job
    QTimer pause_;
    std::shared_ptr<Running> searching_;
    Session::Begun begun_;  ///< what is searched for
    bool busy_ = false;
};

}  // namespace yb
