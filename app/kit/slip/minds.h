// What is to be minded, worst first, one line each; of many the first three and the rest folded.
#pragma once

#include <functional>
#include <map>

#include "app/ground/slow/runner.h"
#include "app/kit/slip/lines.h"

namespace yb {

class Minds : public QWidget {
    Q_OBJECT
  public:
    /// Looks for what the program could do about one, when its line is opened; tells it when it is found.
    using LookForMend =
        std::function<std::shared_ptr<Running>(const Caution&, QObject* owner, std::function<void(std::optional<Mend>)> came)>;
    Minds(OpenLines& open, LookForMend look_for_mend, QWidget* parent = nullptr);
    void show(std::vector<Caution> list, const Units& units);
    /// Opens or folds the first.
    void press_first();
    /// Of the line that stands open; empty for none.
    QString open_headline() const;

  Q_SIGNALS:
    void show_place(const yb::Caution& caution);
    void mend(const yb::Mend& mend);

  private:
    MindLine* line(std::size_t i);
    void look(MindLine* line, const Caution& caution);
    void stop_looking(MindLine* line);

    OpenLines& open_;
    LookForMend look_for_mend_;
    struct Looked {
        Caution of;
        std::shared_ptr<Running> running;
        std::optional<Mend> found;
    };
    std::map<MindLine*, Looked> looked_;
    Units units_;
    NamedLine* more_line_;
    Fold* more_;
    std::vector<MindLine*> at_once_, folded_;
    std::vector<Caution> shown_;
};

}  // namespace yb
