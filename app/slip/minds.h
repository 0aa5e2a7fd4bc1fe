// What is to be minded, worst first, one line each; of many the first three and the rest folded.
#pragma once

#include <functional>

#include "app/slip/lines.h"

namespace yb {

class Minds : public QWidget {
    Q_OBJECT
  public:
    /// @param mend_for what the program could do about one, tried when its line is opened.
    Minds(OpenLines& open, std::function<std::optional<Mend>(const Caution&)> mend_for, QWidget* parent = nullptr);
    void show(std::vector<Caution> list, const Units& units);
    /// Opens or folds the first.
    void press_first();

  Q_SIGNALS:
    void show_place(const yb::Caution& caution);
    void mend(const yb::Caution& caution);

  private:
    MindLine* line(std::size_t i);

    OpenLines& open_;
    std::function<std::optional<Mend>(const Caution&)> mend_for_;
    Units units_;
    NamedLine* more_line_;
    Fold* more_;
    std::vector<MindLine*> at_once_, folded_;
    std::vector<Caution> shown_;
};

}  // namespace yb
