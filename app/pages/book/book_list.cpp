#include "app/pages/book/book_list.h"

#include <QDateTime>
#include <QLocale>
#include <QPainter>

#include "app/ground/theme/theme.h"
#include "app/ground/words.h"
#include "app/kit/slip/lines.h"
#include "core/shop/job/cards.h"
#include "core/shop/job/steps.h"

namespace yb {

QString kind_in_words(const std::string& kind) {
    static const std::map<std::string, const char*> words{{"reading", QT_TR_NOOP("Reading")},     {"tick", QT_TR_NOOP("Done")},
                                                          {"note", QT_TR_NOOP("Note")},           {"change", QT_TR_NOOP("Changed")},
                                                          {"agreement", QT_TR_NOOP("Agreed")},    {"photo", QT_TR_NOOP("Photograph")},
                                                          {"correction", QT_TR_NOOP("Corrected")}};
    const auto it = words.find(kind);
    return it == words.end() ? QString::fromStdString(kind) : told(it->second);
}

QString said_of(const BookEntry& e) {
    const QString what = told(e.what), value = QString::fromStdString(e.value + (e.unit.empty() ? "" : " " + e.unit));
    if (e.kind == "photo") return what.isEmpty() ? QObject::tr("a photograph") : what;
    if (what.isEmpty()) return value;
    if (e.kind == "tick" && of_card(e.of)) return QObject::tr("%1: %2 after the start").arg(what, value);
    return value.isEmpty() ? what : QStringLiteral("%1: %2").arg(what, value);
}

QString told_of(const BookEntry& e) {
    // A card by what it is called, with the second of a reading; an operation is what the line says.
    if (const auto card = of_card(e.of))
        if (const std::string name = card_name(card->card); !name.empty()) return told(name) + QString::fromStdString(card->more);
    return e.kind == "tick" ? QString() : QString::fromStdString(e.of);
}

int BookModel::rowCount(const QModelIndex& parent) const { return parent.isValid() ? 0 : static_cast<int>(shown_.size()); }

const BookLine* BookModel::line(const QModelIndex& index) const {
    if (!index.isValid() || index.row() < 0 || index.row() >= rowCount()) return nullptr;
    return &lines_[shown_[shown_.size() - 1 - static_cast<std::size_t>(index.row())]];
}

QString BookModel::job_name(const std::string& id) const {
    const auto it = jobs_.find(id);
    return it == jobs_.end() ? QString::fromStdString(id) : it->second;
}

QVariant BookModel::data(const QModelIndex& index, int role) const {
    const BookLine* l = line(index);
    if (!l) return {};
    if (role == Qt::DisplayRole || role == Qt::AccessibleTextRole)
        return QStringLiteral("%1 %2 %3: %4")
            .arg(QString::fromStdString(l->entry.at).left(16), job_name(l->entry.job), kind_in_words(l->entry.kind), said_of(l->entry));
    return {};
}

void BookModel::show_lines(std::vector<BookLine> lines, std::map<std::string, QString> jobs) {
    beginResetModel();
    lines_ = std::move(lines);
    jobs_ = std::move(jobs);
    shown_ = search(lines_, ask_);
    endResetModel();
}

void BookModel::ask(const BookAsk& ask) {
    beginResetModel();
    ask_ = ask;
    shown_ = search(lines_, ask_);
    endResetModel();
}

QSize BookDelegate::sizeHint(const QStyleOptionViewItem&, const QModelIndex&) const { return {200, theme::grown(44)}; }

void BookDelegate::paint(QPainter* p, const QStyleOptionViewItem& option, const QModelIndex& index) const {
    const auto* model = dynamic_cast<const BookModel*>(index.model());
    const BookLine* l = model ? model->line(index) : nullptr;
    if (!l) return;
    const auto& c = theme::colours();
    const QRectF box = option.rect;
    p->save();
    p->setRenderHint(QPainter::Antialiasing);
    const bool picked = option.state & QStyle::State_Selected;
    if (picked) p->fillRect(box, c.slip);
    const double margin = theme::grown(92);
    // The margin's red line of a ledger is madder here, and thin.
    p->setPen(QPen(c.rule, 1));
    p->drawLine(QPointF(box.left(), box.bottom()), QPointF(box.right(), box.bottom()));
    p->setPen(QPen(picked ? c.brass : c.faint, picked ? 2 : 1));
    p->drawLine(QPointF(box.left() + margin, box.top()), QPointF(box.left() + margin, box.bottom()));
    const QDateTime at = QDateTime::fromString(QString::fromStdString(l->entry.at), Qt::ISODate);
    p->setPen(c.pencil);
    p->setFont(theme::figures(10.5));
    const QRectF date(box.left(), box.top() + 4, margin - 10, box.height() / 2 - 4);
    p->drawText(date, Qt::AlignRight | Qt::AlignVCenter,
                at.isValid() ? QLocale().toString(at.date(), QStringLiteral("d MMM yy")) : QString::fromStdString(l->entry.at).left(10));
    p->setFont(theme::text(9));
    p->drawText(date.translated(0, box.height() / 2 - 4), Qt::AlignRight | Qt::AlignVCenter,
                at.isValid() ? at.time().toString(QStringLiteral("H:mm")) : QString());
    const double left = box.left() + margin + 12;
    QFont upper = theme::text(11, l->entry.kind == "note");
    upper.setStrikeOut(l->corrected_by != 0);
    p->setFont(upper);
    p->setPen(l->corrected_by ? c.pencil : l->entry.kind == "correction" ? c.madder : c.ink);
    const QRectF first(left, box.top() + 4, box.right() - left - 10, box.height() / 2 - 3);
    p->drawText(first, Qt::AlignLeft | Qt::AlignVCenter,
                p->fontMetrics().elidedText(said_of(l->entry).simplified(), Qt::ElideRight, static_cast<int>(first.width())));
    p->setFont(theme::text(9.5));
    p->setPen(c.pencil);
    QStringList below{kind_in_words(l->entry.kind)};
    if (const QString job = model->job_name(l->entry.job); !job.isEmpty()) below << job;
    if (const StepRow* step = find_step(l->entry.step)) below << told(step->name);
    else if (!l->entry.step.empty()) below << QString::fromStdString(l->entry.step);
    if (const QString of = told_of(l->entry); !of.isEmpty()) below << of;
    p->drawText(first.translated(0, box.height() / 2 - 3), Qt::AlignLeft | Qt::AlignVCenter,
                p->fontMetrics().elidedText(below.join(QStringLiteral("  ·  ")), Qt::ElideRight, static_cast<int>(first.width())));
    p->restore();
}

}  // namespace yb
