// The slip: one figure large, a few more one line each with their working in place, what to mind with its mend, what can be
// done, how it is done, what can be set – and one strong button for what comes next, always in sight.
#pragma once

#include <map>
#include <memory>
#include <set>
#include <tuple>

#include <QFrame>
#include <QTimer>

#include "app/bench/step_view.h"

class QGridLayout;
class QLabel;
class QPushButton;
class QScrollArea;
class QVBoxLayout;

namespace yb {

class FieldForm;
class FigureLine;
class Fold;
class MindLine;
class NamedLine;

class Slip : public QFrame {
    Q_OBJECT
  public:
    explicit Slip(Session& session, QWidget* parent = nullptr);
    ~Slip() override;
    void set_step_view(StepView* view);
    /// Opens or folds the working of the large figure.
    void toggle_workings();
    /// Opens or folds the worst of what is to be minded.
    void open_first_to_mind();
    /// The strong button at the foot.
    void press_next();
    /// Shows or hides what this step is for and its keys.
    void toggle_help();
    void refresh();
    /// What is made a moment after the slip stands there, now: for whoever can't wait.
    void build_form();
    /// The actions differ after this: lay them out anew.
    void rebuild();

  Q_SIGNALS:
    void show_place(const yb::Caution& caution);

  private:
    /// Lays out a page for what is picked, on the empty slip.
    void build();
    /// The picking is another, the job the same.
    void show_picked();
    void forget_pages();
    void fill_head();
    void fill_rest();
    QStringList asked_for() const;
    // What is said of the picked thing, or of the top.
    const std::vector<Figure>& said_figures() const;
    std::vector<Caution> said_cautions() const;
    std::vector<Choice> said_choices() const;
    void fill_answers();
    void fill_cautions();
    void fill_choices();
    void fill_actions(QVBoxLayout* box);
    void add_form(QVBoxLayout* box);
    static QString keys_text();
    /// Keeps open what was opened, when the slip is laid out anew.
    void remember(Fold* fold);

    Session& session_;
    StepView* view_ = nullptr;
    QLabel *title_ = nullptr, *which_ = nullptr;
    QPushButton *before_ = nullptr, *after_ = nullptr;
    QScrollArea* scroll_ = nullptr;
    QVBoxLayout* foot_ = nullptr;
    QVBoxLayout* answers_ = nullptr;
    QVBoxLayout* cautions_ = nullptr;
    QVBoxLayout* choices_ = nullptr;
    QLabel* mind_ = nullptr;
    std::vector<std::string> answer_keys_, choice_keys_, caution_keys_;
    std::vector<MindLine*> minded_;
    Fold* more_to_mind_ = nullptr;
    std::vector<Caution> shown_cautions_;
    std::vector<FigureLine*> figures_;
    std::vector<NamedLine*> hows_;
    Fold* form_fold_ = nullptr;
    FieldForm* form_ = nullptr;  ///< in it, once it was made
    QTimer form_soon_;
    QStringList built_for_;
    QLabel* help_ = nullptr;
    bool help_open_ = false;
    bool keeping_ = false;    ///< what was being typed is on its way into the job
    std::set<QString> open_;  ///< names of lines that stand open
    // The page of each kind of thing, kept while only the picking changes.
    auto page() {
        return std::tie(help_, answers_, cautions_, choices_, mind_, answer_keys_, choice_keys_, caution_keys_, minded_, more_to_mind_,
                        shown_cautions_, figures_, hows_, form_fold_, form_, built_for_);
    }
    using Page = std::tuple<QLabel*, QVBoxLayout*, QVBoxLayout*, QVBoxLayout*, QLabel*, std::vector<std::string>, std::vector<std::string>,
                            std::vector<std::string>, std::vector<MindLine*>, Fold*, std::vector<Caution>, std::vector<FigureLine*>,
                            std::vector<NamedLine*>, Fold*, FieldForm*, QStringList>;
    struct Kept {
        std::unique_ptr<QWidget> widget;
        Page page;
    };
    std::map<QString, Kept> kept_;
    QString page_about_;  ///< the kind of thing the page that is seen was made for
    QTimer pause_;        ///< the slower parts of the slip follow when a drag rests
};

}  // namespace yb
