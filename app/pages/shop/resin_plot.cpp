#include "app/pages/shop/resin_plot.h"

#include <QPainter>

#include <algorithm>

#include "app/ground/theme/theme.h"
#include "app/ground/words.h"
#include "app/kit/fields/field.h"
#include "core/material/resin/mix.h"
#include "core/shop/job/shop.h"

namespace yb {

ResinPlot::ResinPlot(Session& session, std::string key, QWidget* parent) : QWidget(parent), session_(session), key_(std::move(key)) {
    setObjectName(QString::fromStdString(key_) + "_plot");
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    connect(&session_, &Session::changed, this, &ResinPlot::refresh);
    refresh();
}

QSize ResinPlot::sizeHint() const { return {200, theme::grown(96)}; }

void ResinPlot::refresh() {
    const Resin* resin = find_resin(session_.shop().resins, key_);
    if (!resin || of_ == *resin) return;
    of_ = *resin;
    cures_.clear();
    rows_.clear();
    setVisible(!resin->solid);
    if (resin->solid) return;
    const Kinetics k = kinetics_of(*resin);
    for (int i = 0; i <= 48; ++i) {
        const double share = 0.97 * i / 48;
        cures_.emplace_back(isothermal_h(k, share, 25), share);
    }
    rows_ = label_against_model(*resin);
    setAccessibleName(tr("Label beside model"));
    setAccessibleDescription(read_out());
    setToolTip(read_out());
    update();
}

QString ResinPlot::read_out() const {
    if (rows_.empty()) return tr("Its label gave no times yet: type them, and they stand on the line.");
    QStringList all;
    for (const LabelRow& r : rows_)
        all << tr("%1: label %2, model %3").arg(told(r.what), in_units(hours(r.label_h), session_), in_units(hours(r.model_h), session_));
    return all.join(QStringLiteral("; "));
}

void ResinPlot::paintEvent(QPaintEvent*) {
    if (cures_.empty()) return;
    const auto& c = theme::colours();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const QRectF plot = QRectF(rect()).adjusted(4, 8, -8, -theme::grown(18));
    double last = cures_.back().first;
    for (const LabelRow& r : rows_) last = std::max(last, r.label_h);
    const auto at = [&](double h, double share) {
        return QPointF(plot.left() + plot.width() * h / last, plot.bottom() - plot.height() * share);
    };
    p.setPen(QPen(c.rule, 1));
    p.drawLine(plot.bottomLeft(), plot.bottomRight());
    QPolygonF line;
    for (const auto& [h, share] : cures_) line << at(h, share);
    p.setPen(QPen(c.chalk, 1.8));
    p.drawPolyline(line);
    // A time of the label hangs from the model's own place for it: so far it lies off.
    for (const LabelRow& r : rows_) {
        double share = 0;
        for (std::size_t i = 1; i < cures_.size(); ++i)
            if (cures_[i].first <= r.model_h) share = cures_[i].second;
        p.setPen(QPen(c.ochre, 1.4));
        p.drawLine(at(r.model_h, share), at(r.label_h, share));
        p.setBrush(c.ochre);
        p.drawEllipse(at(r.label_h, share), 3, 3);
    }
    p.setPen(c.pencil);
    p.setFont(theme::text(10));
    p.drawText(QRectF(plot.left(), plot.bottom() + 1, plot.width(), theme::grown(17)), Qt::AlignLeft | Qt::AlignVCenter,
               rows_.empty() ? tr("cured by the hour, at 25 °C") : tr("cured by the hour, at 25 °C · its label's times dotted"));
    p.drawText(QRectF(plot.left(), plot.bottom() + 1, plot.width(), theme::grown(17)), Qt::AlignRight | Qt::AlignVCenter,
               in_units(hours(last), session_));
}

}  // namespace yb
