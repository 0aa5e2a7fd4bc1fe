// The slip: one figure large, a few more one line each with their working in place, what to mind with its mend, what can be
// done, how it is done, what can be set – and one strong button for what comes next, always in sight.
#pragma once

#include <QFrame>
#include <QTimer>

#include "app/kit/bench/step_view.h"
#include "app/kit/slip/lines.h"

class QLabel;
class QPushButton;
class QScrollArea;
class QVBoxLayout;

namespace yb {

class ActionButton;
class Doings;
class FieldForm;
class Looks;
class Minds;
class Ways;

class Slip : public QFrame {
    Q_OBJECT
  public:
    explicit Slip(Session& session, QWidget* parent = nullptr);
    void set_step_view(StepView* view);
    /// Opens or folds the working of the large figure.
    void toggle_workings();
    /// Opens or folds the worst of what is to be minded.
    void open_first_to_mind();
    /// The headline of the caution that stands open; empty for none.
    QString open_mind() const;
    /// The strong button at the foot.
    void press_next();
    /// The keys go to a line of what can be set, opened where it is folded away; nothing where it is not there.
    void type_in(const QString& field);
    /// Shows or hides what this step is for and its keys.
    void toggle_help();
    void refresh();
    /// What is made a moment after the slip stands there, now: for whoever can't wait.
    void build_form();

  Q_SIGNALS:
    void show_place(const yb::Caution& caution);

  protected:
    /// A slip too short for all of it folds more of its schools and doings.
    void resizeEvent(QResizeEvent*) override;

  private:
    void build_head(QVBoxLayout* column);
    void build_paper();
    /// What is typed and not yet entered goes into the job, before its line goes.
    void keep_typed();
    void settle();
    void fill_head();
    void fill_rest();
    void fill_answers();
    void fill_actions();
    void fill_form();
    QStringList asked_for() const;
    // What is said of the picked thing, or of the top.
    const std::vector<Figure>& said_figures() const;
    std::vector<Caution> said_cautions() const;
    std::vector<Choice> said_choices() const;
    static QString keys_text();

    Session& session_;
    StepView* view_ = nullptr;
    OpenLines open_;
    QLabel *title_ = nullptr, *which_ = nullptr;
    QPushButton *before_ = nullptr, *after_ = nullptr;
    QScrollArea* scroll_ = nullptr;
    QLabel *help_ = nullptr, *about_ = nullptr, *in_book_ = nullptr;
    QVBoxLayout* answers_ = nullptr;
    std::vector<FigureLine*> figures_;  ///< as many as were ever needed; those not needed now are out of sight
    Looks* looks_ = nullptr;
    Minds* minds_ = nullptr;
    Doings* doings_ = nullptr;
    Ways* ways_ = nullptr;
    Fold* form_fold_ = nullptr;
    FieldForm* form_ = nullptr;  ///< in it, once it was made
    QStringList built_for_;
    QVBoxLayout* foot_ = nullptr;
    QLabel* cost_ = nullptr;  ///< what the last change did to money and days
    std::vector<ActionButton*> next_;
    QTimer form_soon_;
    bool help_open_ = false;
    bool short_of_room_ = false;
    bool keeping_ = false;  ///< what was being typed is on its way into the job
    QTimer pause_;          ///< the slower parts of the slip follow when a drag rests
};

}  // namespace yb
