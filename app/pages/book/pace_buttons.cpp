#include "app/pages/book/pace_buttons.h"

#include <cmath>

#include <QPushButton>
#include <QVBoxLayout>

#include "app/ground/words.h"
#include "app/kit/slip/lines.h"
#include "app/kit/slip/side.h"

namespace yb {

PaceButtons::PaceButtons(Session& session, QWidget* parent) : QWidget(parent), session_(session), rows_(new QVBoxLayout(this)) {
    rows_->setContentsMargins(0, 0, 0, 0);
    rows_->setSpacing(3);
}

void PaceButtons::show_learned(const Learned& learned, bool sure) {
    clear(rows_);
    for (const PaceFigure& f : learned.figures) {
        if (sure && !is_used(f)) continue;
        const char* name = "";
        for (const PaceKind& k : pace_kinds())
            if (f.key == k.key) name = k.label;
        PaceFigure shown = f;
        bool kept = false;
        for (const PaceFigure& p : session_.shop().paces)
            if (p.key == f.key) shown.put_back = p.put_back, kept = std::abs(p.times - f.times) < 0.01 && p.tables == f.tables;
        const QString tables = told(yb::render(say("{}", counted(f.tables, "table", "tables")), session_.units()));
        const QString stands = shown.put_back ? tr("the starting value is used") : !is_used(shown) ? tr("not sure enough yet") : kept ? tr("used") : tr("press to use it");
        auto* b = quiet_button("pace_" + QString::fromStdString(f.key), tr("%1: × %2 ± %3\nfrom %4, %5").arg(told(name)).arg(f.times, 0, 'f', 2).arg(f.spread, 0, 'f', 2).arg(tables, stands),
                               tr("Hours taken beside those of the starting value; nine times of ten it lies within"));
        b->setCheckable(true);
        const bool used = is_used(shown) && kept;
        b->setChecked(used);
        rows_->addWidget(b);
        connect(b, &QPushButton::clicked, this, [this, key = f.key, figures = learned.figures, used] {
            session_.edit_shop(tr("The maker's pace"), [&](Shop& s) {
                take_paces(s, figures);
                put_back(s, key, used);
            });
        });
    }
    rows_->addStretch(1);
}

}  // namespace yb
