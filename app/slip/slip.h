// The slip: answers in big figures with their working, what to mind, what you set, choices, what is next.
#pragma once

#include <map>

#include <QScrollArea>

#include "app/bench/step_view.h"

class QVBoxLayout;
class QLabel;
class QPushButton;

namespace yb {

class MeasureField;

class Slip : public QScrollArea {
    Q_OBJECT
  public:
    explicit Slip(Session& session, QWidget* parent = nullptr);
    void set_step_view(StepView* view);
    /// Opens or folds the working of every answer.
    void toggle_workings();
    void refresh();
    /// The actions differ after this: lay them out anew.
    void rebuild();

  Q_SIGNALS:
    void show_place(const yb::Caution& caution);

  private:
    struct Answer;
    struct Row;
    void build_fields(QVBoxLayout* box);
    void fill_rest();
    void fill_answers();
    void fill_cautions();
    void fill_choices();
    void fill_fields();
    QLabel* heading(const QString& text);

    Session& session_;
    StepView* view_ = nullptr;
    QVBoxLayout* answers_ = nullptr;
    QVBoxLayout* cautions_ = nullptr;
    QVBoxLayout* choices_ = nullptr;
    QLabel* mind_ = nullptr;
    std::vector<std::string> answer_keys_, choice_keys_, caution_texts_;
    std::map<std::string, QWidget*> answer_widgets_;
    std::vector<std::function<void()>> updates_, choice_updates_;
    bool workings_open_ = false;
    bool waiting_ = false;  ///< the slower parts of the slip will follow
};

}  // namespace yb
