// The log put back together: the slabs of one tree in the order they were sawn, found from edges, knots and pictures,
// drawn in end view and in plan. What the maker knows is pinned; the numbers are written on the slabs at the end.
#pragma once

#include <memory>

#include <QWidget>

#include "app/ground/session/session.h"
#include "app/kit/bench/top_picture.h"
#include "core/steps/makeup/arrange.h"
#include "core/steps/match/sequence.h"

class QComboBox;
class QGridLayout;
class QLabel;
class QPushButton;

namespace yb {

class LongWork;
class Pictures;

/// The stack in end view with the outlines beside it.
class LogPicture : public QWidget {
    Q_OBJECT
  public:
    explicit LogPicture(Pictures& pictures, QWidget* parent = nullptr);
    void show_log(std::vector<std::shared_ptr<const BothWays>> boards, Sequence sequence, double kerf_mm);

  protected:
    void paintEvent(QPaintEvent*) override;

  private:
    TopPicture tops_;
    std::vector<std::shared_ptr<const BothWays>> boards_;
    Sequence sequence_;
    double kerf_mm_ = 4;
};

class LogPage : public QWidget {
    Q_OBJECT
  public:
    LogPage(Session& session, Pictures& pictures, LongWork& work, QWidget* parent = nullptr);

  Q_SIGNALS:
    void back();
    void say(const QString& text, bool trouble);

  protected:
    void showEvent(QShowEvent* e) override;

  private:
    void list_trees();
    void order();
    void tell();
    void show_rows();
    void write_numbers();
    std::vector<std::string> ids_of_tree() const;

    struct Pinned {
        bool place = false, way = false;
    };
    Session& session_;
    Pictures& pictures_;
    LongWork& work_;
    QComboBox* tree_;
    QLabel* about_;
    LogPicture* picture_;
    QGridLayout* rows_;
    QPushButton *order_, *write_;
    std::vector<std::string> ids_;
    std::vector<std::shared_ptr<const BothWays>> boards_;
    std::map<std::string, Pinned> pins_;
    Sequence sequence_;
    bool pictures_compared_ = false;
};

}  // namespace yb
