// Tools on the bench: a dimension typed where it stands, an outline drawn point by point.
#include "app/kit/bench/bench.h"

#include <QKeyEvent>
#include <QMenu>
#include <QMouseEvent>
#include <QSettings>
#include <QWheelEvent>

#include <algorithm>
#include <array>
#include <cmath>

#include "app/ground/session/pictures.h"
#include "app/ground/theme/theme.h"
#include "app/kit/fields/measure_field.h"
#include "core/material/slab/slab.h"
#include "core/steps/lay/lay.h"
#include "core/steps/makeup/makeup.h"

namespace yb {

QPolygonF Bench::dimension_place(const QString& field) const {
    for (const auto& [place, d] : dimensions_)
        if (d.field.name == field) return place;
    return {};
}

bool Bench::type_dimension() {
    if (dimensions_.empty()) return false;
    std::size_t next = 0;
    for (std::size_t i = 0; editor_ && i < dimensions_.size(); ++i)  // from the one that is open to the next
        if (dimensions_[i].second.field.name == last_typed_) next = (i + 1) % dimensions_.size();
    open_editor(dimensions_[next].second.field, dimensions_[next].first.boundingRect().center());
    return true;
}

void Bench::close_editor() {
    if (!editor_) return;
    // What is on its way out is not to be found any more.
    for (QWidget* w : editor_->findChildren<QWidget*>()) w->setObjectName({});
    editor_->hide();
    editor_->deleteLater();
    editor_ = nullptr;
    Q_EMIT say({});  // what was said of it goes with it
}

void Bench::open_editor(const Field& field, QPointF middle) {
    close_editor();
    last_typed_ = field.name;
    editor_ = new MeasureField("dimension", field.kind, this);
    editor_->setAutoFillBackground(true);
    editor_->line()->setAccessibleName(field.label);
    editor_->set_range(field.low, field.high);
    editor_->show_value(field.get(session_), session_.units());
    connect(editor_, &MeasureField::committed, this, [this, set = field.set](std::optional<double> v) {
        close_editor();
        setFocus();
        set(session_, v);
    });
    editor_->line()->installEventFilter(this);
    editor_->resize(150, editor_->sizeHint().height());
    QPoint at = (middle - QPointF(75, editor_->height() / 2.0)).toPoint();
    at.setX(std::clamp(at.x(), 0, std::max(0, width() - 150)));
    at.setY(std::clamp(at.y(), 0, std::max(0, height() - editor_->height())));
    editor_->move(at);
    editor_->show();
    editor_->line()->setFocus();
    editor_->line()->selectAll();
    Q_EMIT say(tr("%1: type it in any unit. Enter keeps it, Esc leaves it as it was.").arg(field.label));
}

bool Bench::eventFilter(QObject* watched, QEvent* e) {
    if (!editor_ || watched != editor_->line()) return QWidget::eventFilter(watched, e);
    const bool escape = e->type() == QEvent::KeyPress && static_cast<QKeyEvent*>(e)->key() == Qt::Key_Escape;
    const bool kept =
        e->type() == QEvent::KeyPress && static_cast<QKeyEvent*>(e)->key() == Qt::Key_Return && !editor_->line()->isModified();
    if (!escape && !kept) {
        // A hint below the line needs room.
        if (e->type() == QEvent::LayoutRequest || e->type() == QEvent::KeyRelease) editor_->resize(150, editor_->sizeHint().height());
        return QWidget::eventFilter(watched, e);
    }
    close_editor();
    setFocus();
    return true;
}

void Bench::draw_outline(std::function<void(Ring)> done, bool line) {
    if (!drawn_) plan_only_before_ = plan_only_;
    drawn_ = std::move(done);
    drawn_line_ = line;
    points_.clear();
    set_plan_only(true);  // all the room for the hand
    setFocus();
    Q_EMIT say(line
                   ? tr("Paint along it with the button held, or click from point to point. Enter or a double click ends it, Esc drops it.")
                   : tr("Paint around it with the button held, or click from point to point. Enter or a double click closes it, Backspace "
                        "takes a point back, Esc drops it."));
    update();
}

void Bench::finish_outline() {
    if (points_.size() < (drawn_line_ ? 2U : 3U)) {
        Q_EMIT say(drawn_line_ ? tr("A line needs two points at least. Click another.")
                               : tr("An outline needs three points at least. Click another."));
        return;
    }
    const auto done = std::exchange(drawn_, nullptr);
    Q_EMIT say({});
    done(std::exchange(points_, {}));
    set_plan_only(plan_only_before_);
}

}  // namespace yb
