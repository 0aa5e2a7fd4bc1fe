// A card run at the bench, in large type: what to do now, its clock, what comes next; one key ticks it off. What was ticked is in
// the shop file before the next step is shown.
#pragma once

#include <functional>

#include <QTimer>
#include <QWidget>

#include "app/ground/session/session.h"
#include "app/ground/slow/slow.h"
#include "core/ground/card/card.h"
#include "core/steps/pour/pour.h"

class QCheckBox;
class QLabel;
class QLineEdit;
class QPushButton;

namespace yb {

class Probe;

class CardPage : public QWidget {
    Q_OBJECT
  public:
    explicit CardPage(Session& session, QWidget* parent = nullptr);
    ~CardPage() override;
    /// Shows a card, "pour", "glue" or "rods"; a run under way goes on.
    void open(const QString& card);
    /// Seconds since 1970: for tests another clock than the wall's.
    void set_clock(std::function<double()> now);
    /// What is read now, in words: for tests and those who can't see it.
    QString read_out() const;
    /// Listens to a thermocouple on a line. @returns whether there is one.
    bool listen_to(const QString& line);
    /// Waits for what is worked out beside: for tests and pictures.
    void wait();

  public Q_SLOTS:
    void start();
    void tick_off();
    void take_back();
    void put_away();
    void take_temperature(double c);
    /// What the scale shows while a batch is mixed: which part is poured, how much is to go; B begins with Enter.
    void take_mass(double g);

  Q_SIGNALS:
    void back();
    void say(const QString& sentence, bool trouble);

  protected:
    void paintEvent(QPaintEvent* e) override;
    void keyPressEvent(QKeyEvent* e) override;
    void showEvent(QShowEvent* e) override;
    void hideEvent(QHideEvent* e) override;

  private:
    struct Shown {
        const CardRun* run = nullptr;
        std::optional<CardNow> now;
    };
    Shown shown() const;
    void refresh();
    void draw_now(QPainter& p, const QRectF& box) const;
    void draw_set_out(QPainter& p, const QRectF& box) const;
    void draw_list(QPainter& p, const QRectF& box) const;
    void listen_for_silence();
    void keep_readings();
    bool change_run(const QString& label, const std::function<void(CardRun&)>& change);

    /// What a thermocouple's readings are set against.
    struct Question {
        std::vector<CardReading> readings;
        Resin resin;
        Section section;
        bool operator==(const Question&) const = default;
    };
    struct Answer {
        std::vector<std::pair<double, double>> planned;  ///< h after the pour, °C
        std::optional<Corrected> corrected;
    };
    std::optional<Question> question() const;
    void draw_heat(QPainter& p, const QRectF& box, const Question& asked) const;

    Session& session_;
    QString card_;
    std::vector<CardStep> steps_;
    std::function<double()> now_;
    QTimer second_;
    std::vector<CardReading> unkept_;
    double in_cup_g_ = 0;
    std::optional<double> first_poured_g_;  ///< of part A, once B is begun
    std::string weighed_for_;               ///< the step that it is weighed for
    double kept_at_ = -1e300;
    double heard_at_ = 0;  ///< the thermocouple, by the wall's clock
    bool silent_ = false;  ///< … and it was said that nothing comes
    Probe* thermocouple_;
    mutable Slow<Question, Answer> heat_;
    QPushButton *start_, *tick_, *untick_, *away_, *wire_, *back_;
    QCheckBox* practice_;
    QLineEdit *air_, *mixed_, *note_;
    QLabel *air_word_, *mixed_word_, *line_;
    QWidget* board_;
};

}  // namespace yb
