// What is to be seen before a shop is open, or when one could not be opened.
#pragma once

#include <QWidget>

namespace yb {

class StartPage : public QWidget {
    Q_OBJECT
  public:
    /// @param why why the shop at `path` could not be opened; empty at a plain start
    /// @param damaged its backup and what can still be read are offered
    StartPage(const QString& why, const QString& path, bool damaged, QWidget* parent = nullptr);

  Q_SIGNALS:
    void demo();
    void empty_rack();
    void own_shop();
    void open(const QString& path);
    void salvage_it();
    void trouble(const QString& text);

  private:
    void open_backup(const QString& backup, const QString& path);
};

}  // namespace yb
