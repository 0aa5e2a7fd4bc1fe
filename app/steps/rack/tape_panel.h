// The tape table: stations along the chalk line, edges, thickness; straightedge gaps on each face; flaws.
// Enter goes to the next station, any unit is taken, a spreadsheet can be pasted.
#pragma once

#include <QTableWidget>
#include <QWidget>

#include "app/ground/session/session.h"
#include "core/shop/edit/tape_edits.h"

class QLabel;
class QButtonGroup;

class QCheckBox;
class QPushButton;

namespace yb {

class Probe;
class MeasureField;

class TapeTable : public QTableWidget {
    Q_OBJECT
  public:
    using QTableWidget::QTableWidget;

  Q_SIGNALS:
    void paste(const QString& text);
    void next_station();
    void other_sheet(int by);

  protected:
    void keyPressEvent(QKeyEvent* e) override;
};

class TapePanel : public QWidget {
    Q_OBJECT
  public:
    explicit TapePanel(Session& session, QWidget* parent = nullptr);
    using Sheet = TapeSheet;
    void show_sheet(Sheet sheet);
    /// The keys go to the first cell of a sheet, or of the one that is shown. The panel has to be in sight.
    void begin_typing(std::optional<Sheet> sheet = {});
    /// Listens to a gauge on a line; its readings fill the cell that is picked, one press after the other.
    bool listen_to_probe(const QString& line);

  Q_SIGNALS:
    void say(const QString& sentence);

  private:
    void refresh();
    void fill();
    void fill_edges();
    void fill_heights();
    void fill_flaws();
    void cell_changed(int row, int column);
    /// Takes one text for one cell; false and a sentence when it can't be read.
    bool take(Slab& slab, int row, int column, const QString& text, QString& why) const;
    void every(int row, const QString& text);
    void tell_understood(const QString& text);
    void pasted(const QString& text);
    void next_station();
    void probe_read(double mm);
    void show_probe();
    HeightGrid& grid(Slab& slab) const { return sheet_ == Sheet::heights_b ? slab.heights_b : slab.heights_a; }
    /// The unit that bare numbers are read in: " · mm".
    QString unit() const;
    /// Says what is wrong below the cell, or nothing.
    void say_at(int row, int column, const QString& why);
    void set_text(int row, int column, QString text);
    void set_cell(int row, int column, std::optional<double> value, Kind kind);

    Session& session_;
    Sheet sheet_ = Sheet::edges;
    TapeTable* table_;
    QLabel* hint_;
    QLabel* at_cell_;     ///< what is wrong with a cell, said below it
    QString understood_;  ///< what the last text in another unit came to
    QButtonGroup* sheets_;
    MeasureField* every_;
    Probe* probe_;
    QPushButton* probe_button_;
    QCheckBox* upward_;
    double every_mm_ = 300;
    bool filling_ = false;
    QMap<QPair<int, int>, QString> wrong_;  ///< texts that can't be read yet: kept as typed
    std::string for_slab_;
};

}  // namespace yb
