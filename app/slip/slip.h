// The slip: answers in big figures with their working, what to mind, what you set, choices, what is next.
#pragma once

#include <map>

#include <QScrollArea>
#include <QTimer>

#include "app/bench/step_view.h"

class QVBoxLayout;
class QLabel;
class QPushButton;

namespace yb {

class FieldForm;

class Slip : public QScrollArea {
    Q_OBJECT
  public:
    explicit Slip(Session& session, QWidget* parent = nullptr);
    void set_step_view(StepView* view);
    /// Opens or folds the working of every answer.
    void toggle_workings();
    /// Shows or hides what this step is for and its keys.
    void toggle_help();
    void refresh();
    /// The actions differ after this: lay them out anew.
    void rebuild();

  Q_SIGNALS:
    void show_place(const yb::Caution& caution);

  private:
    void fill_rest();
    QStringList asked_for() const;
    void fill_answers();
    void fill_cautions();
    void fill_choices();
    static QString keys_text();
    QLabel* heading(const QString& text);

    Session& session_;
    StepView* view_ = nullptr;
    QVBoxLayout* answers_ = nullptr;
    QVBoxLayout* cautions_ = nullptr;
    QVBoxLayout* choices_ = nullptr;
    QLabel* mind_ = nullptr;
    std::vector<std::string> answer_keys_, choice_keys_, caution_keys_;
    std::vector<class CautionBox*> caution_boxes_;
    std::vector<Caution> shown_cautions_;
    std::map<std::string, QWidget*> answer_widgets_;
    FieldForm* form_ = nullptr;
    QStringList built_for_;
    QLabel* help_ = nullptr;
    bool help_open_ = false;
    bool keeping_ = false;  ///< what was being typed is on its way into the job
    bool workings_open_ = false;
    QTimer pause_;  ///< the slower parts of the slip follow when a drag rests
};

}  // namespace yb
