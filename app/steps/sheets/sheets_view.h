#pragma once

#include <QPrinterInfo>

#include "app/kit/bench/step_view.h"
#include "core/shop/edit/shop_edits.h"

namespace yb {

/// Sheets: the page itself takes the bench's place; the slip prints it.
class SheetsStep : public StepView {
  public:
    SheetsStep(std::function<void()> print, std::function<void()> pdf) : print_(std::move(print)), pdf_(std::move(pdf)) {}
    Step step() const override { return step_key::sheets; }
    std::vector<Action> actions(Session& s) override {
        Session* session = &s;
        // Where there is no printer, paper is a file.
        static const bool printer = !QPrinterInfo::availablePrinterNames().isEmpty();
        return {{"sheet_pdf", QObject::tr("Save as PDF"), QObject::tr("All its pages"), pdf_, true, !printer},
                {"sheet_size", QObject::tr("A4 or Letter"), QObject::tr("Changes the paper"),
                 [session] { session->edit_shop(QObject::tr("Paper size"), other_paper); }},
                {"sheet_print", QObject::tr("Print it"), QObject::tr("Ctrl+P"), print_, true, printer}};
    }
    QString help() const override {
        return QObject::tr("What the job needs, one matter a page; PgDn and PgUp turn. Print it, or save it as PDF.");
    }

  private:
    std::function<void()> print_, pdf_;
};

}  // namespace yb
