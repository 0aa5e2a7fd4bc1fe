// The bench sheet: one side of A4 or Letter with what the job needs, readable at arm's length. The same
// drawing goes to the screen, the printer and PDF.
#pragma once

#include <QPainter>
#include <QString>
#include <QWidget>

#include "app/session/session.h"

class QPrinter;

namespace yb {

/// Page size in mm.
QSizeF sheet_size_mm(const Shop& shop);

/// Draws the sheet; the painter's unit is one millimetre of paper.
void draw_sheet(QPainter& p, QSizeF page_mm, const Job& job, const Plan& plan, const Shop& shop);

/// Draws the second page: the cuts in their order, what to set the saw to, and the offcuts to keep.
void draw_cut_list(QPainter& p, QSizeF page_mm, const Job& job, const Plan& plan, const Shop& shop);

/// Prints the sheet on the printer as it is set up. @returns an empty text, or what went wrong.
QString print_sheet(QPrinter& printer, const Job& job, const Plan& plan, const Shop& shop);

/// Writes the sheet as PDF. @returns an empty text, or what went wrong in one sentence.
QString write_sheet_pdf(const QString& path, const Job& job, const Plan& plan, const Shop& shop);

class SheetView : public QWidget {
    Q_OBJECT
  public:
    explicit SheetView(Session& session, QWidget* parent = nullptr);

  protected:
    void paintEvent(QPaintEvent*) override;

  private:
    Session& session_;
};

}  // namespace yb
