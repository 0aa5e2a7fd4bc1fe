#include "app/kit/slip/ways.h"

#include <QRadioButton>
#include <QVBoxLayout>

#include "app/ground/theme/theme.h"
#include "app/ground/words.h"

namespace yb {

namespace {

constexpr std::size_t ways_at_once = 3;  ///< of more two stand by themselves, one where there is little room, and the rest is folded

/// The leaf it is about first, where there are several.
QString label_of(const Choice& c) { return c.of.empty() ? told(c.label) : QString::fromStdString(c.of) + ": " + told(c.label); }

std::vector<std::string> keys_of(const Choice& c) {
    std::vector<std::string> keys{c.key};
    for (const Option& o : c.options) keys.push_back(o.key);
    return keys;
}

}  // namespace

Ways::Ways(OpenLines& open, std::function<void(const QString&, const std::string&, const std::string&)> choose, LookForCosts costs,
           QWidget* parent)
    : QWidget(parent),
      open_(open),
      choose_(std::move(choose)),
      costs_(std::move(costs)),
      more_line_(new NamedLine),
      more_(new Fold({}, more_line_)) {
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(0, 0, 0, 0);
    box->setSpacing(0);
    for (std::size_t i = 0; i < ways_at_once; ++i) at_once_.push_back(way()), box->addWidget(at_once_.back().fold);
    more_->body()->setContentsMargins(0, 0, 0, 0);
    open_.follow(more_);
    box->addWidget(more_);
    soon_.setSingleShot(true);
    soon_.setInterval(400);
    connect(&soon_, &QTimer::timeout, this, &Ways::look_for_costs);
}

Ways::Way Ways::way() {
    auto* line = new NamedLine;
    auto* fold = new Fold({}, line);
    open_.follow(fold);
    connect(fold, &Fold::opened, this, [this](bool open) {
        if (open) make_bodies(), soon_.start();
    });
    return {line, fold, {}};
}

void Ways::show(std::vector<Choice> list, const Units& units) {
    shown_ = std::move(list);
    units_ = units;
    // What stood there was of another plan.
    for (auto& [key, running] : looking_)
        if (running) running->stop.request_stop();
    looking_.clear(), cost_of_.clear();
    setVisible(!shown_.empty());
    const std::size_t n = shown_.size();
    const std::size_t first = by_themselves();
    while (folded_.size() < n - first) {
        folded_.push_back(way());
        more_->body()->addWidget(folded_.back().fold);
    }
    bool opened = false;
    const auto give = [&](Way& w, std::size_t i) {
        const std::vector<std::string> keys = i < n ? keys_of(shown_[i]) : std::vector<std::string>{};
        if (w.made_for != keys && !w.made_for.empty()) {
            clear(w.fold->body());
            w.made_for.clear();
        }
        w.fold->call(i < n ? QString::fromStdString("how_" + shown_[i].key) : QString());
        if (i >= n) return;
        w.line->set_name(label_of(shown_[i]));
        for (const Option& o : shown_[i].options)
            if (o.chosen) w.line->say(told(o.label));
        open_.settle(w.fold);
        opened = opened || w.fold->open();
        if (!w.made_for.empty()) fill(w, shown_[i]);
    };
    for (std::size_t i = 0; i < at_once_.size(); ++i) give(at_once_[i], i < first ? i : n);
    for (std::size_t i = 0; i < folded_.size(); ++i) give(folded_[i], first + i);
    more_->call(first < n ? QStringLiteral("how_more") : QString());
    more_line_->set_name(tr("%1 more ways to choose").arg(n - first));
    more_line_->say({});
    open_.settle(more_);
    if (opened) make_bodies(), soon_.start();
}

/// Of the choices that stand open.
void Ways::look_for_costs() {
    if (!costs_) return;
    const std::size_t first = by_themselves();
    for (std::size_t i = 0; i < shown_.size(); ++i) {
        const Fold* fold = i < first ? at_once_[i].fold : folded_[i - first].fold;
        const std::string key = shown_[i].key;
        if (!fold->open() || looking_.count(key)) continue;
        looking_[key] = costs_(key, this, [this](const std::vector<ChoiceCost>& found) {
            for (const ChoiceCost& c : found) cost_of_[c.choice + "_" + c.option] = told(yb::render(said_of(c), units_));
            make_bodies();
            for (std::size_t k = 0; k < shown_.size(); ++k)
                fill(k < by_themselves() ? at_once_[k] : folded_[k - by_themselves()], shown_[k]);
        });
    }
}

std::size_t Ways::by_themselves() const {
    const std::size_t most = short_of_room_ ? 2 : ways_at_once;
    return shown_.size() > most ? most - 1 : shown_.size();
}

void Ways::make_bodies() {
    const std::size_t n = shown_.size();
    const std::size_t first = by_themselves();
    for (std::size_t i = 0; i < n; ++i) {
        Way& w = i < first ? at_once_[i] : folded_[i - first];
        if (w.made_for.empty()) fill(w, shown_[i]);
    }
}

void Ways::fill(Way& w, const Choice& c) {
    const bool make = w.made_for.empty();
    w.made_for = keys_of(c);
    for (std::size_t i = 0; i < c.options.size(); ++i) {
        const Option& o = c.options[i];
        const QString name = QString::fromStdString(c.key + "_" + o.key);
        if (make) {
            auto* radio = new QRadioButton;
            radio->setObjectName("choice_" + name);
            auto* what = words({}, 9, theme::colours().pencil);
            what->setObjectName("gain_" + name);
            what->setContentsMargins(20, 0, 0, 2);
            w.fold->body()->addWidget(radio);
            w.fold->body()->addWidget(what);
            connect(radio, &QRadioButton::clicked, this,
                    [this, of = label_of(c), key = c.key, o] { choose_(of + ": " + told(o.label), key, o.key); });
        }
        auto* radio = static_cast<QRadioButton*>(w.fold->body()->itemAt(2 * static_cast<int>(i))->widget());
        auto* what = static_cast<QLabel*>(w.fold->body()->itemAt(2 * static_cast<int>(i) + 1)->widget());
        radio->setText(o.advised ? tr("%1 (advised)").arg(told(o.label)) : told(o.label));
        radio->setChecked(o.chosen);
        const QString consequence = QString::fromStdString(yb::render(o.consequence, units_));
        const auto cost = cost_of_.find(c.key + "_" + o.key);
        set_words(what, cost == cost_of_.end() || cost->second.isEmpty() ? consequence
                        : consequence.isEmpty()                          ? cost->second
                                                                         : QStringLiteral("%1\n%2").arg(consequence, cost->second));
    }
}

}  // namespace yb
