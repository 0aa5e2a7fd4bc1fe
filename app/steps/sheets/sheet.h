// The bench sheet: pages of A4 or Letter, one matter a page with its drawing, read at arm's length. The same drawing goes to the screen,
// the printer and PDF.
#pragma once

#include <functional>
#include <optional>

#include <QPainter>
#include <QString>
#include <QWidget>

#include "app/ground/session/session.h"
#include "app/steps/sheets/flow.h"

class QPdfWriter;
class QPrinter;

namespace yb {

struct Season;

/// What is painted on pages of the shop's paper, as PDF; the painter's unit is a millimetre of it.
QByteArray paint_pdf(const Shop& shop, const QString& title, const std::function<void(QPainter&, QPdfWriter&)>& paint);

/// Page size in mm.
QSizeF sheet_size_mm(const Shop& shop);

/// How its matters stand on their pages, found by setting them for paper that nobody keeps.
SheetLook look_of(const Job& job, const Plan& plan, const Shop& shop);

/// Draws the sheet; the painter's unit is one millimetre of paper. The first page tells what is on which; then a page a matter: cuts,
/// flattening leaf by leaf, the pour, the glue-up, the underside, the base, what is to be minded. `next_page` is called before every
/// page but the first.
void draw_sheet(QPainter& p, QSizeF page_mm, const Job& job, const Plan& plan, const Shop& shop, const SheetLook& look,
                const std::function<void()>& next_page);

/// Prints the sheet on the printer as it is set up. @returns an empty text, or what went wrong.
QString print_sheet(QPrinter& printer, const Job& job, const Plan& plan, const Shop& shop);

/// Writes the sheet as PDF. @returns an empty text, or what went wrong in one sentence.
QString write_sheet_pdf(const QString& path, const Job& job, const Plan& plan, const Shop& shop);

/// Writes what there is to do on a day, before going home, the day after and over the week as PDF. @returns likewise.
QString write_week_pdf(const QString& path, const Season& season, const std::string& day, const Shop& shop);

class SheetView : public QWidget {
    Q_OBJECT
  public:
    explicit SheetView(Session& session, QWidget* parent = nullptr);
    int page() const { return page_; }
    int pages() const { return pages_; }  ///< as last painted
    void turn_to(int page);

  protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent* e) override;
    void wheelEvent(QWheelEvent* e) override;

  private:
    Session& session_;
    int page_ = 0, pages_ = 1;
    std::optional<SheetLook> look_;  ///< until the plan is another
};

}  // namespace yb
