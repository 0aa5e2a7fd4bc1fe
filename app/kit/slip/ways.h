// Choices between schools, one line each; opened, each way with what it gains and loses for this job.
#pragma once

#include <functional>
#include <map>
#include <memory>

#include <QTimer>

#include "app/ground/slow/runner.h"
#include "app/kit/slip/lines.h"
#include "core/shop/ways/costs.h"

namespace yb {

class Ways : public QWidget {
    Q_OBJECT
  public:
    /// @param choose a way was chosen: what that is called, the choice's key and the option's.
    /// Looks beside the work for what each option of a choice does to money and days; tells it when it is found.
    using LookForCosts = std::function<std::shared_ptr<Running>(const std::string& choice, QObject* owner,
                                                                std::function<void(std::vector<ChoiceCost>)> came)>;
    /// @param costs none: nothing is said of them.
    Ways(OpenLines& open, std::function<void(const QString&, const std::string&, const std::string&)> choose, LookForCosts costs,
         QWidget* parent = nullptr);
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
    void look_for_costs();
    void fill(Way& way, const Choice& c);

    OpenLines& open_;
    std::function<void(const QString&, const std::string&, const std::string&)> choose_;
    LookForCosts costs_;
    QTimer soon_;  ///< costs are looked for once the hand rests
    std::map<std::string, std::shared_ptr<Running>> looking_;
    std::map<std::string, QString> cost_of_;  ///< by choice and option
    bool short_of_room_ = false;
    Units units_;
    NamedLine* more_line_;
    Fold* more_;
    std::vector<Way> at_once_, folded_;
    std::vector<Choice> shown_;
};

}  // namespace yb
