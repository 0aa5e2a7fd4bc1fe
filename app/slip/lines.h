// The lines a slip is made of: a figure that opens its working in place, a caution that opens its sentence, a heading that
// opens what belongs to it. Each is one line while it is closed.
#pragma once

#include <QLabel>
#include <QPushButton>

#include "core/figure/figure.h"

class QVBoxLayout;

namespace yb {

/// Words on the slip, wrapped.
QLabel* words(const QString& text, double points, const QColor& ink);
/// Sets it only where it differs: laying text out is what costs. @returns whether it was another text.
bool set_words(QLabel* label, const QString& text);

/// A line that can be pressed and is as tall as its words need.
class SlipLine : public QPushButton {
    Q_OBJECT
  public:
    explicit SlipLine(QWidget* parent = nullptr);
    QSize sizeHint() const override;
    QSize minimumSizeHint() const override;
    bool hasHeightForWidth() const override { return true; }
    int heightForWidth(int width) const override;

  protected:
    void paintEvent(QPaintEvent*) override;
};

/// One line with what it opens below it. While it is folded its body has the property `fold`, the name of the line.
class Fold : public QWidget {
    Q_OBJECT
  public:
    /// @param name of the line. @param line goes to the fold.
    Fold(const QString& name, SlipLine* line, QWidget* parent = nullptr);
    SlipLine* line() const { return line_; }
    QVBoxLayout* body() const;
    bool open() const { return open_; }
    void set_open(bool open);

  Q_SIGNALS:
    void opened(bool open);

  private:
    SlipLine* line_;
    QWidget* body_;
    bool open_ = false;
};

/// A line with words at the left and what holds now at the right: "How thick   as thick as it comes ▾".
class NamedLine : public SlipLine {
    Q_OBJECT
  public:
    explicit NamedLine(const QString& name);
    void say(const QString& now);

  private:
    QLabel* now_;
};

/// A figure: the hero large with a line of what it is below, others on one line.
class FigureLine : public Fold {
    Q_OBJECT
  public:
    FigureLine(const QString& key, bool hero);
    /// @param dragging under the hand it keeps its place on the slip unless its note wants another line.
    void show(const Figure& f, const Units& u, bool dragging);

  private:
    bool hero_;
    QLabel *name_, *value_, *note_, *work_;
};

/// A caution: its sign, a headline and its place; its sentence, the way there and the mend where there is one below.
class MindLine : public Fold {
    Q_OBJECT
  public:
    explicit MindLine(const Caution& c);
    void show(const Caution& c, const Units& u);
    /// What the program can do itself; nothing hides the button.
    void offer(const std::optional<Mend>& mend, const Units& u);
    QPushButton* way() const { return way_; }  ///< nullptr where it has no place
    QPushButton* mend() const { return mend_; }

  private:
    QLabel *headline_, *place_, *text_;
    QPushButton *way_ = nullptr, *mend_ = nullptr;
};

}  // namespace yb
