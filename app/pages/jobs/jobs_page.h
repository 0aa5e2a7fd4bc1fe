// The jobs of the shop: a small picture of each, whom it is for, where it stands, what comes next, when it is ready.
#pragma once

#include <memory>
#include <vector>

#include <QAbstractButton>
#include <QWidget>

#include "app/ground/session/session.h"
#include "app/ground/slow/runner.h"
#include "app/kit/bench/top_picture.h"
#include "core/shop/job/state.h"

class QCheckBox;
class QPushButton;
class QGridLayout;
class QLabel;
class QScrollArea;

namespace yb {

/// What the page shows of a job: planned beside the work.
struct JobShown {
    std::string id;
    QString name, client;
    bool away = false;
    std::shared_ptr<const Job> job;
    std::shared_ptr<const Plan> plan;  ///< none where a slab of it has gone
    JobState state;
};

/// One job. Pressed, it goes on the bench; a press with the right button, or its "…", offers the rest.
class JobCard : public QAbstractButton {
    Q_OBJECT
  public:
    JobCard(Session& session, TopPicture& tops, JobShown shown, QWidget* parent = nullptr);
    const JobShown& shown() const { return shown_; }

  Q_SIGNALS:
    void more(const QPoint& at);

  protected:
    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent*) override;
    void contextMenuEvent(QContextMenuEvent* e) override;
    void keyPressEvent(QKeyEvent* e) override;

  private:
    Session& session_;
    TopPicture& tops_;
    JobShown shown_;
    QPushButton* more_;
};

class JobsPage : public QWidget {
    Q_OBJECT
  public:
    JobsPage(Session& session, Pictures& pictures, QWidget* parent = nullptr);
    /// Waits until all are planned and drawn: for tests and pictures.
    void wait();

  Q_SIGNALS:
    void back();

  protected:
    void showEvent(QShowEvent* e) override;

  private:
    void look();
    void paint_cards();
    void show_jobs(std::vector<JobShown> jobs);
    void open(const std::string& id);
    void offer(const JobCard& card, const QPoint& at);
    void new_job();

    Session& session_;
    TopPicture tops_;
    QLabel* about_;
    QCheckBox* away_;
    QGridLayout* grid_;
    std::vector<JobShown> jobs_;
    std::shared_ptr<Running> looking_;
    bool busy_ = false;
};

}  // namespace yb
