// What is to be seen before a shop is open, when one could not be opened, and after one was repaired.
#pragma once

#include <QWidget>

#include "core/files/store/store.h"

class QLabel;
class QLineEdit;
class QPushButton;
class QVBoxLayout;

namespace yb {

struct Repair;

class StartPage : public QWidget {
    Q_OBJECT
  public:
    /// @param why why the shop at `path` could not be opened; empty at a plain start
    /// @param what damaged: its backup and what is whole of it are offered; stray_journal: to set it aside
    StartPage(const QString& why, const QString& path, StoreError::Kind what, QWidget* parent = nullptr);
    /// What was made of a damaged shop: `made` is the new file.
    StartPage(const Repair& repair, const QString& path, const QString& made, QWidget* parent = nullptr);

    /// Where a shop of that name is kept: among the user's documents, under a name that is free.
    static QString place_for(const QString& name);
    /// What went wrong here, under what is said already.
    void tell(const QString& text);

  Q_SIGNALS:
    void demo();
    /// A shop of one's own, by its name, in a new file.
    void own(const QString& name, const QString& path);
    void practise();
    void plain();
    void own_shop();
    void open(const QString& path);
    void repair_it(const QString& path);
    void journal_aside(const QString& path);

  private:
    void begin(const QString& title, const QString& text);
    template <class F>
    QPushButton* offer(const QString& name, const QString& words, F run, bool strong = false);
    /// A place is kept for the backup; whether one is whole is found out beside the work.
    void offer_backup(const QString& path, bool strong);
    void offer_shops();
    /// The plain start: three pictures, the shops last used, what else there is.
    void pictures();
    void last_used();
    void name_it();
    void open_backup(const QString& backup, const QString& path);

    QVBoxLayout* box_ = nullptr;
    QLabel* told_ = nullptr;
    QLabel* place_ = nullptr;
    QLineEdit* name_ = nullptr;
    QString backup_;  ///< the newest that is whole, once it is found
};

}  // namespace yb
