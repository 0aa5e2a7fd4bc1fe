// Money of the job on the bench: its ways side by side, its lines, what it is offered for, the client's picture.
#pragma once

#include <memory>
#include <set>

#include <QWidget>

#include "app/ground/session/session.h"
#include "app/ground/slow/runner.h"
#include "core/shop/pace/learned.h"
#include "core/shop/ways/ways.h"

class QComboBox;
class QGridLayout;
class QLabel;
class QLineEdit;
class QPushButton;
class QTableWidget;
class QVBoxLayout;

namespace yb {

class FigureLine;
class MeasureField;
class Pictures;
class TablePicture;

class MoneyPage : public QWidget {
    Q_OBJECT
  public:
    explicit MoneyPage(Session& session, Pictures& pictures, QWidget* parent = nullptr);
    /// Waits until all ways are planned: for tests and pictures.
    void wait();
    TablePicture& picture() { return *picture_; }
    /// The ways that are on the offer, each with its plan; the first is the job on the bench.
    struct Offered {
        std::shared_ptr<const Job> job;
        std::shared_ptr<const Plan> plan;
        QString name;
        QImage picture;
    };
    std::vector<Offered> offered();

  Q_SIGNALS:
    void back();
    void offer_wanted();
    void shopping_wanted();
    void say(const QString& sentence, bool trouble);

  protected:
    void showEvent(QShowEvent* e) override;

  private:
    struct Planned;
    void lay_room(QVBoxLayout* room);
    void lay_offer(QVBoxLayout* rows);
    void lay_foot(QVBoxLayout* rows);
    void listen_to_ways();
    void listen_to_fields();
    const Planned* shown() const;  ///< the way that is picked
    void edit(const QString& label, const std::function<void(Job&)>& change);
    void look();
    void fill();
    void fill_ways();
    void fill_lines();
    void add_way();

    struct Planned {
        WayLine line;
        std::shared_ptr<const Job> job;
        std::shared_ptr<const Plan> plan;
        Money money;
        std::optional<Money> real;
        Learned learned;  ///< of its ticks
    };

    Session& session_;
    Pictures& pictures_;
    TablePicture* picture_;
    QTableWidget *ways_, *lines_;
    QLabel *about_, *offer_, *offer_note_, *figures_, *missing_;
    class PaceButtons* paces_;
    QPushButton *add_, *take_, *away_, *bench_;
    MeasureField *hour_, *margin_, *base_;
    QLineEdit *not_included_, *extra_;
    std::shared_ptr<Running> looking_;
    std::vector<Planned> planned_;
    std::vector<FigureLine*> workings_;  ///< cost, offer, what an hour earns: each opens to how it was reached
    std::set<std::string> on_offer_;
    bool busy_ = false, filling_ = false;
};

}  // namespace yb
