// Days: all jobs on one rule of dates, what there is to do today, what could give.
#pragma once

#include <map>
#include <memory>

#include <QWidget>

#include "app/ground/session/session.h"
#include "app/ground/slow/runner.h"
#include "core/shop/days/season.h"

class QLabel;
class QLayout;
class QLineEdit;
class QPushButton;
class QVBoxLayout;

namespace yb {

class DaysSticks;
class MeasureField;

class DaysPage : public QWidget {
    Q_OBJECT
  public:
    explicit DaysPage(Session& session, QWidget* parent = nullptr);
    /// Waits until all jobs are planned: for tests and pictures.
    void wait();
    /// The day it is: for tests and pictures; otherwise the clock's.
    void set_today(const QString& iso);
    const Season* season() const { return season_.get(); }
    /// The calendar file that is kept up to date; empty: none.
    void show_kept(const QString& path);

  Q_SIGNALS:
    void back();
    void calendar_wanted();    ///< to be written
    void calendar_let_go();    ///< it is not kept up to date any more
    void settled();            ///< the dates stand, as they are kept
    void days_off_wanted();    ///< to be read from a calendar
    void week_sheet_wanted();  ///< to be printed

  protected:
    void showEvent(QShowEvent* e) override;

  private:
    /// Every job's plan, made beside when something changed.
    struct Plans {
        std::map<std::string, std::shared_ptr<const Plan>> by_job;
        std::map<std::string, const Plan*> bare() const;
    };
    QLayout* beside_slip();
    void lay_said(QVBoxLayout* rows);
    void lay_doing(QVBoxLayout* rows);
    void lay_foot(QVBoxLayout* foot);
    void listen_to_sticks();
    void listen_to_buttons();
    void listen_to_fields();
    void tick_now();
    void turn(int by);
    void look();
    /// Dates anew from the plans that are there. @param docs as they are, or as a drag would have them.
    void lay_out(const Documents& docs);
    void fill();
    void fill_today();
    /// What a change has done to the dates, and which operation did it.
    void tell_moved(const Season& before, const Season& now);
    void ask_what_gives();
    QString comes_to(const WhatIf& what, const std::string& job) const;
    void offer(const WhatIf& what, const std::string& job);
    /// Several changes at once, tried and offered.
    void try_together(const std::string& job);
    void take(const std::string& key, const std::string& job);
    std::string today() const;
    const Operation* picked(const JobDays** job = nullptr) const;
    void edit(const QString& label, const std::function<void(Job&)>& change);

    Session& session_;
    DaysSticks* sticks_;
    QLabel *about_, *title_, *which_, *hero_, *hero_note_, *figures_, *mind_, *today_line_, *home_line_, *given_, *moved_;
    QPushButton *done_, *unpin_, *sooner_, *later_, *own_, *again_, *split_, *helped_, *drop_, *gives_;
    QPushButton* keep_ = nullptr;
    QLineEdit* wanted_;
    QPushButton* fetched_;
    MeasureField *hands_, *waits_, *air_, *took_;
    QLabel* air_name_ = nullptr;
    std::vector<std::string> together_;  ///< keys of the changes that are looked at together
    std::vector<QPushButton*> helper_;
    QVBoxLayout* ways_;
    std::shared_ptr<const Plans> plans_;
    std::unique_ptr<Season> season_;  ///< as it is shown
    std::unique_ptr<Season> still_;   ///< … and as it stood when nothing was dragged
    std::shared_ptr<Running> looking_, asking_;
    QString fixed_today_;
    bool busy_ = false;
};

}  // namespace yb
