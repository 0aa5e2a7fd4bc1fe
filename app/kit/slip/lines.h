// The lines a slip is made of: a figure that opens its working in place, a caution that opens its sentence, a heading that
// opens what belongs to it. Each is one line while it is closed.
#pragma once

#include <set>

#include <QLabel>
#include <QPushButton>

#include "core/ground/figure/figure.h"

class QVBoxLayout;

namespace yb {

/// Words on the slip, wrapped.
QLabel* words(const QString& text, double points, const QColor& ink);
/// Sets it only where it differs: laying text out is what costs. @returns whether it was another text.
bool set_words(QLabel* label, const QString& text);
/// Takes all out of a box. What is in it may be what called: it is out of sight and nameless at once and goes when it has come
/// to its end.
void clear(QVBoxLayout* box);

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
    /// It stands for something else from now on; none: it is out of sight.
    void call(const QString& name);
    QString name() const { return line_->objectName(); }
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

/// Which folds stand open, by name: a fold that is called something else stands as that one was left.
class OpenLines {
  public:
    void follow(Fold* fold);
    void settle(Fold* fold) const { fold->set_open(open_.count(fold->name()) > 0); }
    void close(Fold* fold);
    void forget() { open_.clear(); }

  private:
    std::set<QString> open_;
};

/// A line with words at the left and what holds now at the right: "How thick   as thick as it comes ▾".
class NamedLine : public SlipLine {
    Q_OBJECT
  public:
    explicit NamedLine(const QString& name = {});
    void set_name(const QString& name);
    void say(const QString& now);

  private:
    QLabel *name_, *now_;
};

/// A figure: the hero large with a line of what it is below, others on one line.
class FigureLine : public Fold {
    Q_OBJECT
  public:
    explicit FigureLine(bool hero);
    /// The figure it is for; none: out of sight.
    void stand_for(const QString& key);
    /// @param dragging under the hand it keeps its place on the slip unless its note wants another line.
    void show(const Figure& f, const Units& u, bool dragging);

  private:
    bool hero_;
    QLabel *name_, *value_, *note_, *work_;
};

/// The sign of a caution, drawn: a shape, never colour alone.
class Sign : public QWidget {
  public:
    Sign();
    void show(Severity s);

  protected:
    void paintEvent(QPaintEvent*) override;

  private:
    Severity severity_ = Severity::note;
};

/// A caution: its sign, a headline and its place; its sentence, the way there and the mend where there is one below.
class MindLine : public Fold {
    Q_OBJECT
  public:
    MindLine();
    /// The caution it is for; none: out of sight.
    void stand_for(const Caution* c);
    void show(const Caution& c, const Units& u);
    /// What the program can do itself; nothing hides the button.
    void offer(const std::optional<Mend>& mend, const Units& u);
    QPushButton* way() const { return way_; }  ///< hidden where it has no place
    QPushButton* mend() const { return mend_; }

  private:
    Sign* sign_;
    QLabel *headline_, *place_, *text_;
    QPushButton *way_, *mend_;
};

}  // namespace yb
