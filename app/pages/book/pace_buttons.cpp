#include "app/pages/book/pace_buttons.h"

#include <algorithm>
#include <cmath>

#include <QPushButton>
#include <QVBoxLayout>

#include "app/ground/words.h"
#include "app/kit/slip/lines.h"
#include "app/kit/slip/side.h"
#include "core/shop/job/job.h"
#include "core/shop/job/rates.h"

namespace yb {

PaceButtons::PaceButtons(Session& session, QWidget* parent) : QWidget(parent), session_(session), rows_(new QVBoxLayout(this)) {
    rows_->setContentsMargins(0, 0, 0, 0);
    rows_->setSpacing(3);
}

void PaceButtons::show_learned(const Learned& learned, bool sure) {
    clear(rows_);
    // What can be used comes first.
    std::vector<PaceFigure> figures = learned.figures;
    std::stable_partition(figures.begin(), figures.end(), is_used);
    for (const PaceFigure& f : figures) {
        const PaceKind* kind = find_pace_kind(f.key);
        if (!kind || (sure && !is_used(f))) continue;
        const Job* job = session_.job();
        PaceFigure shown = f;
        bool kept = false;
        for (const PaceFigure& p : session_.shop().paces)
            if (p.key == f.key) shown.put_back = p.put_back, kept = std::abs(p.times - f.times) < 0.01 && p.tables == f.tables;
        const QString what = QString::fromStdString(yb::render(yours(f, session_.shop(), job ? *job : Job()), session_.units()));
        const QString stands = shown.put_back    ? tr("the starting value is used")
                               : !is_used(shown) ? tr("not sure enough yet")
                               : kept            ? tr("used")
                                                 : tr("press to use it");
        auto* b = quiet_button("pace_" + QString::fromStdString(f.key), QStringLiteral("%1\n%2\n%3").arg(told(kind->label), what, stands),
                               tr("What it really took beside the starting value; nine times of ten it lies within"));
        b->setMinimumHeight(b->sizeHint().height());
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
