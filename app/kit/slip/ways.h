// Choices between schools, one line each; opened, each way with what it gains and loses for this job.
#pragma once

#include <functional>

#include "app/kit/slip/lines.h"

namespace yb {

class Ways : public QWidget {
    Q_OBJECT
  public:
    /// @param choose a way was chosen: what that is called, the choice's key and the option's.
    Ways(OpenLines& open, std::function<void(const QString&, const std::string&, const std::string&)> choose, QWidget* parent = nullptr);
    void show(std::vector<Choice> list, const Units& units);
    /// Where there is little room more of them are folded; from the next show on.
    void be_short(bool is) { short_of_room_ = is; }
    /// What lines open to is made a moment after them, or when one is opened: this makes it now.
    void make_bodies();

  private:
    struct Way {
        NamedLine* line;
        Fold* fold;
        std::vector<std::string> made_for;  ///< keys of the options that stand in it
    };
    Way way();
    std::size_t by_themselves() const;
    void fill(Way& way, const Choice& c);

    OpenLines& open_;
    std::function<void(const QString&, const std::string&, const std::string&)> choose_;
    bool short_of_room_ = false;
    Units units_;
    NamedLine* more_line_;
    Fold* more_;
    std::vector<Way> at_once_, folded_;
    std::vector<Choice> shown_;
};

}  // namespace yb
