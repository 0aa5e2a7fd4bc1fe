// The lines of the book as a list: a date in the margin, what it was, of what; what was corrected is struck through.
#pragma once

#include <map>
#include <vector>

#include <QAbstractListModel>
#include <QStyledItemDelegate>

#include "core/shop/book/book.h"

namespace yb {

/// The newest first: a row is a place in the book.
class BookModel : public QAbstractListModel {
    Q_OBJECT
  public:
    using QAbstractListModel::QAbstractListModel;
    int rowCount(const QModelIndex& parent = {}) const override;
    QVariant data(const QModelIndex& index, int role) const override;
    void show_lines(std::vector<BookLine> lines, std::map<std::string, QString> jobs);
    void ask(const BookAsk& ask);
    const std::vector<BookLine>& lines() const { return lines_; }
    const BookLine* line(const QModelIndex& index) const;
    QString job_name(const std::string& id) const;

  private:
    std::vector<BookLine> lines_;
    std::vector<std::size_t> shown_;
    std::map<std::string, QString> jobs_;
    BookAsk ask_;
};

class BookDelegate : public QStyledItemDelegate {
    Q_OBJECT
  public:
    using QStyledItemDelegate::QStyledItemDelegate;
    void paint(QPainter* p, const QStyleOptionViewItem& option, const QModelIndex& index) const override;
    QSize sizeHint(const QStyleOptionViewItem& option, const QModelIndex& index) const override;
};

/// What a line says, in words: "moisture 9.1 %", "sanding, 3.9 h".
QString said_of(const BookEntry& e);
/// What it is of, in words; empty where the line itself says so.
QString told_of(const BookEntry& e);
/// "reading", "tick" … in words.
QString kind_in_words(const std::string& kind);

}  // namespace yb
