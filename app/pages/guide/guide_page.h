// The guide in the window: its pages, searched word by word, opened where it was asked from.
#pragma once

#include <vector>

#include <QWidget>

class QLabel;
class QLineEdit;
class QListWidget;
class QTextBrowser;

namespace yb {

class GuidePage : public QWidget {
    Q_OBJECT
  public:
    explicit GuidePage(QWidget* parent = nullptr);
    /// Opens it at a place: a step's key ("pour"), a page of the program ("find", "log", "shop", "jobs", "trouble") or the headline of a
    /// caution; what it knows nothing of opens the beginning.
    void open_at(const QString& topic);
    /// The page that is shown: "flat.md".
    const QString& shown() const { return shown_; }
    /// Places that hold all the words, best first: page and the paragraph.
    struct Hit {
        QString page, text;
    };
    std::vector<Hit> search(const QString& words) const;

  Q_SIGNALS:
    void back();

  protected:
    void keyPressEvent(QKeyEvent* e) override;

  private:
    struct Page {
        QString name, title, text;
    };
    void show_page(const QString& name, const QString& at = {});
    void list_pages();
    void find_now();

    std::vector<Page> pages_;
    QLineEdit* words_;
    QListWidget* list_;
    QTextBrowser* paper_;
    QString shown_;
};

}  // namespace yb
