#include "app/steps/rack/tape_panel.h"

#include <QApplication>
#include <QButtonGroup>
#include <QCheckBox>
#include <QClipboard>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QRegularExpression>
#include <QStyledItemDelegate>
#include <QVBoxLayout>

#include <algorithm>

#include "app/ground/probe.h"
#include "app/ground/theme/theme.h"
#include "app/ground/words.h"
#include "app/kit/fields/field.h"
#include "app/kit/fields/measure_field.h"
#include "core/files/io/csv.h"
#include "core/shop/edit/slab_edits.h"

namespace yb {

namespace {

/// Enter takes a cell at once: what is typed right after it, however quickly, is the next cell's.
class CellTyping : public QStyledItemDelegate {
  public:
    using QStyledItemDelegate::QStyledItemDelegate;
    bool eventFilter(QObject* editor, QEvent* e) override {
        const int key = e->type() == QEvent::KeyPress ? static_cast<QKeyEvent*>(e)->key() : 0;
        auto* line = qobject_cast<QWidget*>(editor);
        if (!line || (key != Qt::Key_Return && key != Qt::Key_Enter)) return QStyledItemDelegate::eventFilter(editor, e);
        Q_EMIT commitData(line);
        Q_EMIT closeEditor(line, QAbstractItemDelegate::SubmitModelCache);
        return true;
    }
};

}  // namespace

void TapeTable::keyPressEvent(QKeyEvent* e) {
    if (e->matches(QKeySequence::Paste)) {
        Q_EMIT paste(QApplication::clipboard()->text());
        return;
    }
    if (e->modifiers() == Qt::ControlModifier && (e->key() == Qt::Key_PageDown || e->key() == Qt::Key_PageUp)) {
        Q_EMIT other_sheet(e->key() == Qt::Key_PageDown ? 1 : -1);
        return;
    }
    if ((e->key() == Qt::Key_Delete || e->key() == Qt::Key_Backspace) && state() != EditingState) {
        for (QTableWidgetItem* item : selectedItems()) item->setText({});
        return;
    }
    if ((e->key() == Qt::Key_Return || e->key() == Qt::Key_Enter)) {
        Q_EMIT next_station();
        return;
    }
    QTableWidget::keyPressEvent(e);
}

TapePanel::TapePanel(Session& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      table_(new TapeTable(this)),
      hint_(new QLabel(this)),
      at_cell_(new QLabel(table_->viewport())),
      sheets_(new QButtonGroup(this)),
      every_(new MeasureField("tape_every", Kind::length, this)),
      probe_(new Probe(this)),
      probe_button_(new QPushButton(this)),
      upward_(new QCheckBox(tr("on the sled: it reads upward"), this)) {
    setObjectName("tape_panel");
    setAutoFillBackground(true);
    auto* bar = new QHBoxLayout;
    int i = 0;
    for (const auto& [name, text] : {std::pair("tape_edges", tr("Edges")), std::pair("tape_heights_a", tr("Heights, face A")),
                                     std::pair("tape_heights_b", tr("Heights, face B")), std::pair("tape_flaws", tr("Flaws"))}) {
        auto* b = new QPushButton(text);
        b->setObjectName(name);
        b->setProperty("quiet", true);
        b->setCheckable(true);
        b->setChecked(i == 0);
        sheets_->addButton(b, i++);
        bar->addWidget(b);
    }
    connect(sheets_, &QButtonGroup::idClicked, this, [this](int id) { begin_typing(static_cast<Sheet>(id)); });
    bar->addStretch(1);
    probe_button_->setObjectName("tape_probe");
    probe_button_->setProperty("plain", true);
    probe_button_->setToolTip(tr("A dial gauge or depth probe on a serial line fills one reading at each press"));
    connect(probe_button_, &QPushButton::clicked, this, [this] {
        if (probe_->listening()) {
            probe_->let_go();
            return show_probe();
        }
        Probe::choose_line(probe_button_, tr("Depth gauge"), [this](const QString& line) { listen_to_probe(line); });
    });
    connect(probe_, &Probe::reading, this, &TapePanel::probe_read);
    connect(probe_, &Probe::said, this, [this](const QString& sentence, bool) {
        hint_->setText(sentence);
        show_probe();
    });
    show_probe();
    bar->addWidget(probe_button_);
    upward_->setObjectName("tape_upward");
    upward_->setToolTip(tr("A dial on the sled rises where the wood is higher; a gap under a straightedge grows where it is lower"));
    bar->addWidget(upward_);
    bar->addWidget(new QLabel(tr("a station every")));
    every_->setFixedWidth(theme::grown(90));
    every_->set_range(10, 3000);
    bar->addWidget(every_);
    connect(every_, &MeasureField::committed, this, [this](std::optional<double> v) { every_mm_ = v.value_or(300); });
    at_cell_->setObjectName("tape_at_cell");
    at_cell_->setWordWrap(true);
    at_cell_->setFont(theme::text(9.5));
    at_cell_->setStyleSheet(QStringLiteral("background: %1; color: %2; border: 1px solid %2; padding: 3px")
                                .arg(theme::colours().madder_wash.name(), theme::colours().madder.name()));
    at_cell_->hide();
    hint_->setObjectName("tape_hint");
    hint_->setWordWrap(true);
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(14, 8, 14, 8);
    box->setSpacing(6);
    box->addLayout(bar);
    box->addWidget(table_, 1);
    box->addWidget(hint_);
    table_->setObjectName("tape_table");
    table_->setAccessibleName(tr("Tape table"));
    table_->verticalHeader()->hide();
    table_->setEditTriggers(QAbstractItemView::AnyKeyPressed | QAbstractItemView::DoubleClicked | QAbstractItemView::EditKeyPressed);
    table_->setFont(theme::figures(10));
    table_->setItemDelegate(new CellTyping(table_));
    connect(table_, &QTableWidget::cellChanged, this, &TapePanel::cell_changed);
    connect(table_, &TapeTable::paste, this, &TapePanel::pasted);
    connect(table_, &TapeTable::next_station, this, &TapePanel::next_station);
    connect(table_, &TapeTable::other_sheet, this, [this](int by) {
        const int n = static_cast<int>(sheets_->buttons().size());
        begin_typing(static_cast<Sheet>((static_cast<int>(sheet_) + by + n) % n));
    });
    connect(table_->itemDelegate(), &QAbstractItemDelegate::closeEditor, this, [this](QWidget*, QAbstractItemDelegate::EndEditHint hint) {
        if (hint == QAbstractItemDelegate::SubmitModelCache) next_station();
    });
    connect(&session, &Session::changed, this, &TapePanel::refresh);
}

void TapePanel::show_probe() {
    probe_button_->setText(probe_->listening() ? tr("let go of %1").arg(probe_->name()) : tr("depth gauge…"));
    upward_->setVisible(probe_->listening());
}

bool TapePanel::listen_to_probe(const QString& line) {
    const QString wrong = probe_->listen(line);
    hint_->setText(wrong.isEmpty() ? tr("Listening. Pick the first cell and press the gauge's button; each press goes to the next station.")
                                   : wrong);
    show_probe();
    return wrong.isEmpty();
}

/// Fills the cell that is picked and goes on: down the stations, then to the next place across.
void TapePanel::probe_read(double mm) {
    const int first = sheet_ == Sheet::edges ? 5 : sheet_ == Sheet::flaws ? 2 : 1;
    const int row = std::max(0, table_->currentRow());
    const int column = std::max(first, table_->currentColumn());
    if (row >= table_->rowCount() || column >= table_->columnCount() || (sheet_ == Sheet::flaws && column != 2) ||
        !table_->item(row, column)) {
        hint_->setText(tr("%1 came in and there is no cell for it. Lay a grid for heights, and pick the first cell.")
                           .arg(in_units(fine(mm), session_)));
        return;
    }
    // Heights are kept as gaps: where the dial rises the gap is smaller. What it is counted from falls out of flattening.
    const bool heights = sheet_ != Sheet::edges && sheet_ != Sheet::flaws;
    table_->item(row, column)
        ->setText(QString::fromStdString(edit_text(fine(heights && upward_->isChecked() ? -mm : mm), session_.units())));
    const int rows = sheet_ == Sheet::edges ? table_->rowCount() - 1 : table_->rowCount();
    if (row + 1 < rows) table_->setCurrentCell(row + 1, column);
    else if (column + 1 < table_->columnCount()) table_->setCurrentCell(0, column + 1);
}

void TapePanel::show_sheet(Sheet sheet) {
    sheet_ = sheet;
    sheets_->button(static_cast<int>(sheet))->setChecked(true);
    wrong_.clear();
    fill();
}

void TapePanel::begin_typing(std::optional<Sheet> sheet) {
    show_sheet(sheet.value_or(sheet_));
    table_->setFocus();
    // Where the first reading goes: beside its station, or a flaw's depth.
    const bool no_flaws = sheet_ == Sheet::flaws && session_.slab() && session_.slab()->flaws.empty();
    const int first = no_flaws ? 0 : sheet_ == Sheet::flaws ? 2 : 1;
    if (table_->rowCount() > 0 && table_->columnCount() > first) table_->setCurrentCell(0, first);
}

void TapePanel::refresh() {
    if (isVisible()) fill();
}

void TapePanel::set_cell(int row, int column, std::optional<double> value, Kind kind) {
    set_text(row, column, value ? QString::fromStdString(edit_text({*value, kind}, session_.units())) : QString());
}

void TapePanel::set_text(int row, int column, QString text) {
    const auto bad = wrong_.find({row, column});
    if (bad != wrong_.end()) text = *bad;
    auto* item = table_->item(row, column);
    if (!item) table_->setItem(row, column, item = new QTableWidgetItem);
    item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
    if (item->text() != text) item->setText(text);
    item->setForeground(bad != wrong_.end() ? theme::colours().madder : theme::colours().ink);
}

void TapePanel::fill() {
    filling_ = true;
    every_->show_value(every_mm_, session_.units());
    const Slab* slab = session_.slab();
    if (slab && slab->id != for_slab_) {
        wrong_.clear();
        understood_.clear();
        for_slab_ = slab->id;
    }
    if (!slab) {
        table_->setRowCount(0);
    } else if (sheet_ == Sheet::edges) {
        fill_edges();
    } else if (sheet_ == Sheet::flaws) {
        fill_flaws();
    } else {
        fill_heights();
    }
    if (wrong_.isEmpty()) say_at(-1, -1, {});
    if (wrong_.isEmpty() && !understood_.isEmpty()) hint_->setText(understood_);
    else if (wrong_.isEmpty())
        hint_->setText(
            sheet_ == Sheet::edges ? tr("From the chalk line to each edge, face A up. Tab goes across, Enter to the next "
                                        "station; leave empty what you did not read. “every 1 ft” sets stations so far apart.")
            : sheet_ == Sheet::flaws
                ? tr("What it is by its first letters – a crack, a void … in the empty line is a new one; face A or B; depth from that "
                     "face, empty means through; then where its middle lies and how large it is. Delete takes it away.")
                : tr("The gap under the straightedge. Rows are stations, columns lie across from the chalk line."));
    filling_ = false;
}

QString TapePanel::unit() const { return session_.units().metric_length() ? tr(" · mm") : tr(" · in"); }

void TapePanel::say_at(int row, int column, const QString& why) {
    at_cell_->setVisible(!why.isEmpty());
    if (why.isEmpty()) return;
    at_cell_->setText(why);
    const QRect cell = table_->visualItemRect(table_->item(row, column));
    const int wide = std::min(theme::grown(320), table_->viewport()->width() - 8);
    at_cell_->setFixedWidth(wide);
    at_cell_->adjustSize();
    const int below = cell.bottom() + 2;
    const bool room = below + at_cell_->height() < table_->viewport()->height();
    at_cell_->move(std::clamp(cell.left(), 4, std::max(4, table_->viewport()->width() - wide - 4)),
                   room ? below : std::max(0, cell.top() - at_cell_->height() - 2));
    at_cell_->raise();
}

void TapePanel::fill_edges() {
    const auto& stations = session_.slab()->tape.stations;
    QStringList heads{tr("station"), tr("left, A"), tr("right, A"), tr("left, B"), tr("right, B"), tr("thick, left"), tr("thick, right")};
    for (QString& h : heads) h += unit();
    table_->setColumnCount(7);
    table_->setHorizontalHeaderLabels(heads);
    table_->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
    const int n = static_cast<int>(stations.size());
    table_->setRowCount(n + 1);  // an empty line waits for the next station
    for (int i = 0; i < n; ++i) {
        const Station& s = stations[static_cast<std::size_t>(i)];
        set_cell(i, 0, s.x_mm, Kind::length);
        set_cell(i, 1, s.left_mm, Kind::length), set_cell(i, 2, s.right_mm, Kind::length);
        set_cell(i, 3, s.other_left_mm, Kind::length), set_cell(i, 4, s.other_right_mm, Kind::length);
        set_cell(i, 5, s.thickness_mm, Kind::fine), set_cell(i, 6, s.thickness_right_mm, Kind::fine);
    }
    for (int c = 0; c < 7; ++c) set_cell(n, c, {}, Kind::length);
}

void TapePanel::fill_heights() {
    Slab copy = *session_.slab();
    const HeightGrid& g = grid(copy);
    table_->setColumnCount(static_cast<int>(g.y_mm.size()) + 1);
    QStringList heads{tr("station") + unit()};
    for (const double y : g.y_mm)
        heads << (y > 0   ? tr("left ")
                  : y < 0 ? tr("right ")
                          : QString()) +
                     QString::fromStdString(format(mm(std::abs(y)), session_.units()));
    table_->setHorizontalHeaderLabels(heads);
    table_->setRowCount(static_cast<int>(g.x_mm.size()));
    for (int i = 0; i < table_->rowCount(); ++i) {
        set_cell(i, 0, g.x_mm[static_cast<std::size_t>(i)], Kind::length);
        for (int j = 1; j < table_->columnCount(); ++j)
            set_cell(i, j, g.at(static_cast<std::size_t>(i), static_cast<std::size_t>(j - 1)), Kind::fine);
    }
    if (g.x_mm.empty()) Q_EMIT say(tr("No grid yet: “Lay a grid for heights” on the slip makes one."));
}

void TapePanel::fill_flaws() {
    const auto& flaws = session_.slab()->flaws;
    table_->setColumnCount(8);
    table_->setHorizontalHeaderLabels({tr("what"), tr("face"), tr("depth") + unit(), tr("floor/mouth"), tr("along") + unit(),
                                       tr("left of line") + unit(), tr("long") + unit(), tr("wide") + unit()});
    table_->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
    const int n = static_cast<int>(flaws.size());
    table_->setRowCount(n + 1);  // an empty line waits for the next one
    for (int i = 0; i < n; ++i) {
        const Flaw& f = flaws[static_cast<std::size_t>(i)];
        const Box b = f.outline.size() > 2 ? bounds(f.outline) : Box{};
        set_text(i, 0, told(name_of(f.kind)));
        set_text(i, 1, f.face == Face::a ? "A" : "B");
        set_cell(i, 2, f.through ? std::nullopt : f.depth_mm, Kind::fine);
        set_cell(i, 3, f.floor_share, Kind::number);
        set_cell(i, 4, std::round((b.low.x + b.high.x) / 2), Kind::length),
            set_cell(i, 5, std::round((b.low.y + b.high.y) / 2), Kind::length);
        set_cell(i, 6, std::round(b.width()), Kind::length), set_cell(i, 7, std::round(b.height()), Kind::length);
    }
    for (int c = 0; c < 8; ++c) set_text(n, c, {});
}

bool TapePanel::take(Slab& slab, int row, int column, const QString& text, QString& why) const {
    const auto r = static_cast<std::size_t>(row);
    const auto c = static_cast<std::size_t>(column);
    try {
        if (sheet_ == Sheet::flaws && column < 2) {
            type_flaw_word(slab, r, c, text.toStdString());
            return true;
        }
        std::optional<double> v;
        if (!text.trimmed().isEmpty()) {
            const bool share = sheet_ == Sheet::flaws && column == 3;
            const auto read = parse(text.toStdString(), share ? Kind::number : Kind::length, session_.units());
            if (const auto* e = std::get_if<ParseError>(&read)) {
                why = tr("‘%1’: %2").arg(text, QString::fromStdString(e->sentence()));
                return false;
            }
            v = std::get<double>(read);
        }
        type_reading(slab, sheet_, r, c, v, every_mm_);
        return true;
    } catch (const Refusal& e) {
        why = QString::fromStdString(yb::render(e.says, session_.units()));
        return false;
    }
}

void TapePanel::cell_changed(int row, int column) {
    if (filling_ || !session_.slab()) return;
    const QString text = table_->item(row, column)->text();
    if (sheet_ == Sheet::flaws && text.trimmed().isEmpty() && row >= static_cast<int>(session_.slab()->flaws.size())) return;
    if (sheet_ == Sheet::flaws && column == 0 && text.trimmed().isEmpty() && row < static_cast<int>(session_.slab()->flaws.size())) {
        session_.edit_slab(tr("Take a flaw away"), [&](Slab& s) { drop_flaw(s, static_cast<std::size_t>(row)); });
        return;
    }
    QString why;
    Slab probe = *session_.slab();
    if (sheet_ == Sheet::edges && column == 0 && text.trimmed().startsWith(tr("every"), Qt::CaseInsensitive)) return every(row, text);
    if (!take(probe, row, column, text, why)) {
        wrong_[{row, column}] = text;
        filling_ = true;
        table_->item(row, column)->setForeground(theme::colours().madder);
        filling_ = false;
        hint_->setText(why);
        say_at(row, column, why);
        return;
    }
    wrong_.remove({row, column});
    say_at(-1, -1, {});
    tell_understood(text);
    if (probe == *session_.slab()) return fill();
    session_.edit_slab(tr("Type a reading"), [&](Slab& s) { s = probe; });
}

/// A text in another unit, or with a fraction: what it came to.
void TapePanel::tell_understood(const QString& text) {
    static const QRegularExpression bare(QStringLiteral("^[0-9.,\\s-]*$"));
    understood_.clear();
    if (text.contains(bare)) return;
    const auto read = parse(text.toStdString(), Kind::fine, session_.units());
    if (const auto* v = std::get_if<double>(&read))
        understood_ = tr("‘%1’ is read as %2.").arg(text.trimmed(), QString::fromStdString(format(fine(*v), session_.units())));
}

/// "every 1 ft" in a station's place: this one and those after it stand so far apart.
void TapePanel::every(int row, const QString& text) {
    const auto read = parse(text.trimmed().mid(tr("every").size()).toStdString(), Kind::length, session_.units());
    Slab spaced = *session_.slab();
    try {
        if (const auto* step = std::get_if<double>(&read)) {
            space_stations(spaced, static_cast<std::size_t>(row), *step);
            every_mm_ = *step;
            wrong_.remove({row, 0});
            session_.edit_slab(tr("Stations every so far"), [&](Slab& s) { s = spaced; });
            return fill();
        }
        hint_->setText(tr("‘%1’: write it as every 300 mm, or every 1 ft.").arg(text));
    } catch (const Refusal& e) {
        hint_->setText(tr("‘%1’: %2").arg(text, QString::fromStdString(yb::render(e.says, session_.units()))));
    }
    wrong_[{row, 0}] = text;
}

void TapePanel::pasted(const QString& text) {
    if (!session_.slab()) return;
    const auto rows = split_table(text.toStdString());
    Slab next = *session_.slab();
    const int row = std::max(0, table_->currentRow());
    const int column = std::max(0, table_->currentColumn());
    QString why;
    QString first;
    int bad = 0;
    for (std::size_t i = 0; i < rows.size(); ++i)
        for (std::size_t j = 0; j < rows[i].size(); ++j) {
            if (column + static_cast<int>(j) >= table_->columnCount()) continue;
            const QString cell = QString::fromStdString(rows[i][j]);
            if (take(next, row + static_cast<int>(i), column + static_cast<int>(j), cell, why)) continue;
            wrong_[{row + static_cast<int>(i), column + static_cast<int>(j)}] = cell;
            if (!bad++) first = why;
        }
    session_.edit_slab(tr("Paste readings"), [&](Slab& s) { s = next; });
    fill();
    if (bad) hint_->setText(tr("%1 cells can't be read and are kept in red. %2").arg(bad).arg(first));
}

void TapePanel::next_station() {
    const int row = table_->currentRow() + 1;
    const bool new_flaw = sheet_ == Sheet::flaws && session_.slab() && row >= static_cast<int>(session_.slab()->flaws.size());
    const int column = new_flaw                 ? 0
                       : sheet_ == Sheet::edges ? std::max(1, std::min(table_->currentColumn(), 1))
                                                : std::max(1, table_->currentColumn());
    if (row < table_->rowCount()) table_->setCurrentCell(row, std::min(column, table_->columnCount() - 1));
}

}  // namespace yb
