#include "app/pages/find/find_panel.h"

#include <QKeyEvent>
#include <QLineEdit>
#include <QListWidget>
#include <QVBoxLayout>

#include <algorithm>

#include "app/ground/theme/theme.h"
#include "app/ground/words.h"
#include "app/kit/fields/field.h"

namespace yb {

FindPanel::FindPanel(Session& session, QWidget* parent) : QFrame(parent), session_(session), line_(new QLineEdit), list_(new QListWidget) {
    setObjectName("find_panel");
    setStyleSheet(QStringLiteral("QFrame#find_panel { background: %1; border: 1px solid %2; }")
                      .arg(theme::colours().slip.name(), theme::colours().brass.name()));
    setAutoFillBackground(true);
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(12, 10, 12, 10);
    line_->setObjectName("find_line");
    line_->setProperty("measure", true);
    line_->setPlaceholderText(tr("a slab, a job, a figure"));
    line_->setAccessibleName(tr("Find"));
    line_->setFont(theme::figures(12));
    list_->setObjectName("find_list");
    list_->setFrameShape(QFrame::NoFrame);
    list_->setFocusPolicy(Qt::NoFocus);
    box->addWidget(line_);
    box->addWidget(list_, 1);
    line_->installEventFilter(this);
    connect(line_, &QLineEdit::textChanged, this, &FindPanel::narrow);
    connect(line_, &QLineEdit::returnPressed, this, &FindPanel::go);
    connect(list_, &QListWidget::itemClicked, this, &FindPanel::go);
    hide();
}

void FindPanel::collect() {
    places_.clear();
    for (const auto& [id, name] : session_.job_names())
        places_.push_back({tr("Job: %1").arg(name), [this, key = QString::fromStdString(id)] { session_.set_job(key); }});
    for (const auto& [id, s] : session_.slabs())
        places_.push_back({tr("Slab: %1").arg(QString::fromStdString(s.name)), [this, key = QString::fromStdString(id)] {
                               session_.set_step(step_key::rack);
                               session_.look_at(key);
                           }});
    const Plan* p = session_.plan();
    if (!p) return;
    for (const StepRow& row : steps())
        for (const Figure& f : p->said(row.step).figures)
            places_.push_back({told(row.name) + ": " + told(f.label) + "  " + in_units(f.value, session_),
                               [this, step = row.step] { session_.set_step(step); }});
}

void FindPanel::open() {
    if (!session_.is_open()) return;
    collect();
    setGeometry(parentWidget()->width() - theme::grown(460), theme::grown(46), theme::grown(440), theme::grown(340));
    line_->clear();
    narrow({});
    show();
    raise();
    line_->setFocus();
}

void FindPanel::narrow(const QString& text) {
    list_->clear();
    for (std::size_t i = 0; i < places_.size(); ++i) {
        if (!places_[i].text.contains(text.trimmed(), Qt::CaseInsensitive)) continue;
        auto* item = new QListWidgetItem(places_[i].text, list_);
        item->setData(Qt::UserRole, static_cast<int>(i));
    }
    list_->setCurrentRow(0);
}

void FindPanel::go() {
    const QListWidgetItem* item = list_->currentItem();
    if (!item) {
        Q_EMIT nothing(line_->text());
        return;
    }
    const auto there = places_[static_cast<std::size_t>(item->data(Qt::UserRole).toInt())].go;
    hide();
    there();
}

bool FindPanel::eventFilter(QObject* watched, QEvent* e) {
    if (e->type() == QEvent::FocusOut && watched == line_) hide();
    if (e->type() != QEvent::KeyPress) return QFrame::eventFilter(watched, e);
    const int key = static_cast<QKeyEvent*>(e)->key();
    if (key == Qt::Key_Escape) {
        hide();
        return true;
    }
    if (key == Qt::Key_Down || key == Qt::Key_Up) {
        list_->setCurrentRow(std::clamp(list_->currentRow() + (key == Qt::Key_Down ? 1 : -1), 0, std::max(0, list_->count() - 1)));
        return true;
    }
    return QFrame::eventFilter(watched, e);
}

}  // namespace yb
