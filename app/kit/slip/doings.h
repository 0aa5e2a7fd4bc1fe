// What can be done now: a few buttons at once, the rest folded. The buttons stay; what they do changes with what is picked.
#pragma once

#include <QPushButton>

#include "app/kit/bench/step_view.h"
#include "app/kit/slip/lines.h"

class QGridLayout;

namespace yb {

/// A button that does what it was given last.
class ActionButton : public QPushButton {
    Q_OBJECT
  public:
    /// @param look "quiet" or "next", as the style sheet has them.
    explicit ActionButton(const char* look, QWidget* parent = nullptr);
    void give(const Action& a);
    /// Out of sight, and nameless.
    void put_away();

  private:
    std::function<void()> run_;
};

class Doings : public QWidget {
    Q_OBJECT
  public:
    explicit Doings(OpenLines& open, QWidget* parent = nullptr);
    /// What can be pressed comes first; long words take a line of their own.
    void show(std::vector<Action> what);
    /// Where there is little room more of them are folded; from the next show on.
    void be_short(bool is) { short_of_room_ = is; }

  private:
    OpenLines& open_;
    QLabel* heading_;
    NamedLine* line_;
    Fold* fold_;
    QGridLayout* grid_;
    bool short_of_room_ = false;
    std::vector<ActionButton*> at_once_, folded_;
};

}  // namespace yb
