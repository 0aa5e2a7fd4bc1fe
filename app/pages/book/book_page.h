// The book: what really happened, line by line; its readings drawn against what was expected; the pace it teaches.
#pragma once

#include <memory>

#include <QWidget>

#include "app/ground/session/session.h"
#include "app/ground/slow/runner.h"
#include "core/shop/pace/learned.h"

class QComboBox;
class QLabel;
class QLineEdit;
class QListView;
class QPushButton;
class QVBoxLayout;

namespace yb {

class BookChart;
class BookModel;
class Pictures;
struct BookEntry;

class BookPage : public QWidget {
    Q_OBJECT
  public:
    explicit BookPage(Session& session, Pictures& pictures, QWidget* parent = nullptr);
    /// Reads the book anew.
    void look();
    /// Waits until it is read and drawn: for tests and pictures.
    void wait();
    void show_plot(const QString& key);
    void pick_line(qint64 id);

  Q_SIGNALS:
    void back();
    void note_wanted();
    void photo_wanted();
    void print_wanted();  ///< the job's page of the book
    void agreement_wanted();
    void signed_wanted();  ///< the scan of the signed agreement

  protected:
    void showEvent(QShowEvent* e) override;

  private:
    void lay_asks(QVBoxLayout* room);
    void lay_lines(QVBoxLayout* room);
    void lay_slip(QVBoxLayout* rows);
    void listen();
    void ask();
    void fill();
    void fill_paces();
    void draw();
    void correct();
    QPixmap beside_the_first(const BookEntry& photo);
    QString job_shown() const;

    Session& session_;
    Pictures& pictures_;
    BookModel* model_;
    QListView* list_;
    BookChart* chart_;
    QLineEdit *words_, *from_, *to_;
    QComboBox *job_, *kind_, *plot_;
    QLabel *about_, *title_, *hero_, *more_, *photo_, *pace_head_;
    QPushButton *correct_, *note_, *add_photo_, *print_, *agree_, *signed_;
    class PaceButtons* paces_;
    QString drawn_of_;  ///< the job the plot is of
    std::shared_ptr<Running> looking_;
    std::shared_ptr<const Plan> plan_;  ///< of the job whose plot is drawn
    Learned learned_;
    bool busy_ = false;
};

}  // namespace yb
