#include "app/kit/slip/doings.h"

#include <QGridLayout>
#include <QVBoxLayout>

#include "app/ground/theme/theme.h"

namespace yb {

namespace {
constexpr int places_at_once = 4;  ///< two side by side; half as many where there is little room
}

ActionButton::ActionButton(const char* look, QWidget* parent) : QPushButton(parent) {
    setProperty(look, true);
    connect(this, &QPushButton::clicked, this, [this] {
        const auto run = run_;  // it may be given another while it runs
        if (run) run();
    });
}

void ActionButton::give(const Action& a) {
    run_ = a.run;
    setObjectName(a.name);
    if (text() != a.label) setText(a.label);
    if (toolTip() != a.tip) setToolTip(a.tip);
    setEnabled(a.enabled);
    setVisible(true);
}

void ActionButton::put_away() {
    run_ = {};
    setObjectName({});
    setVisible(false);
}

Doings::Doings(OpenLines& open, QWidget* parent)
    : QWidget(parent),
      open_(open),
      heading_(words(tr("Do"), 9.5, theme::colours().pencil)),
      line_(new NamedLine(tr("Do"))),
      fold_(new Fold({}, line_)),
      grid_(new QGridLayout) {
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(0, 0, 0, 0);
    box->setSpacing(3);
    box->addWidget(heading_);
    grid_->setContentsMargins(0, 5, 0, 5);
    grid_->setSpacing(5);
    static_cast<QVBoxLayout*>(fold_->layout())->insertLayout(1, grid_);
    fold_->body()->setContentsMargins(0, 0, 0, 5);
    box->addWidget(fold_);
    for (int i = 0; i < places_at_once; ++i) at_once_.push_back(new ActionButton("quiet", this));
    open_.follow(fold_);
}

void Doings::show(std::vector<Action> what) {
    setVisible(!what.empty());
    std::stable_partition(what.begin(), what.end(), [](const Action& a) { return a.enabled; });
    for (ActionButton* b : at_once_) grid_->removeWidget(b);
    std::vector<Action> rest;
    std::size_t used = 0;
    int place = 0;
    for (const Action& a : what) {
        const bool wide = fontMetrics().horizontalAdvance(a.label) > theme::grown(112);
        if (wide && place % 2) ++place;
        if (!a.enabled || place >= (short_of_room_ ? places_at_once / 2 : places_at_once)) {
            rest.push_back(a);
            continue;
        }
        ActionButton* b = at_once_[used++];
        b->give(a);
        grid_->addWidget(b, place / 2, place % 2, 1, wide ? 2 : 1);
        place += wide ? 2 : 1;
    }
    for (; used < at_once_.size(); ++used) at_once_[used]->put_away();
    heading_->setVisible(rest.empty());
    line_->setVisible(!rest.empty());
    fold_->call(QStringLiteral("do_more"));
    line_->say(rest.empty() ? QString() : tr("%1 more").arg(rest.size()));
    while (folded_.size() < rest.size()) {
        folded_.push_back(new ActionButton("quiet"));
        fold_->body()->addWidget(folded_.back());
    }
    for (std::size_t i = 0; i < folded_.size(); ++i) {
        if (i < rest.size()) folded_[i]->give(rest[i]);
        else folded_[i]->put_away();
    }
    if (rest.empty()) fold_->set_open(false);
    else open_.settle(fold_);
}

}  // namespace yb
