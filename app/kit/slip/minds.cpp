#include "app/kit/slip/minds.h"
#include "core/shop/job/headlines.h"

#include <QVBoxLayout>

#include "app/ground/theme/theme.h"

namespace yb {

namespace {
constexpr std::size_t minded_at_once = 3;  ///< a fourth stands by itself too: a fold would take its line
}

Minds::Minds(OpenLines& open, LookForMend look_for_mend, QWidget* parent)
    : QWidget(parent), open_(open), look_for_mend_(std::move(look_for_mend)), more_line_(new NamedLine), more_(new Fold({}, more_line_)) {
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(0, 0, 0, 0);
    box->setSpacing(0);
    auto* heading = words(tr("Mind"), 9.5, theme::colours().pencil);
    heading->setContentsMargins(0, 0, 0, 3);
    box->addWidget(heading);
    for (std::size_t i = 0; i <= minded_at_once; ++i) at_once_.push_back(line(i)), box->addWidget(at_once_.back());
    more_->body()->setContentsMargins(0, 0, 0, 0);
    open_.follow(more_);
    box->addWidget(more_);
}

MindLine* Minds::line(std::size_t i) {
    auto* line = new MindLine;
    open_.follow(line);
    connect(line->way(), &QPushButton::clicked, this, [this, i] { Q_EMIT show_place(shown_.at(i)); });
    connect(line->mend(), &QPushButton::clicked, this, [this, line] {
        const auto it = looked_.find(line);
        if (it != looked_.end() && it->second.found) Q_EMIT mend(Mend(*it->second.found));
    });
    connect(line, &Fold::opened, this, [this, i, line](bool open) {
        if (open && i < shown_.size()) look(line, Caution(shown_.at(i)));
        else stop_looking(line);
    });
    return line;
}

/// The plan may have changed under the same sentence: it is looked for anew each time.
void Minds::look(MindLine* line, const Caution& caution) {
    stop_looking(line);
    line->offer({}, units_);
    looked_[line] = {caution, {}, {}};
    looked_[line].running = look_for_mend_(caution, this, [this, line](const std::optional<Mend>& found) {
        const auto it = looked_.find(line);
        if (it == looked_.end()) return;
        it->second.running.reset();
        it->second.found = found;
        line->offer(found, units_);
    });
}

void Minds::stop_looking(MindLine* line) {
    const auto it = looked_.find(line);
    if (it == looked_.end()) return;
    if (it->second.running) it->second.running->stop.request_stop();
    looked_.erase(it);
}

void Minds::show(std::vector<Caution> list, const Units& units) {
    shown_ = std::move(list);
    units_ = units;
    setVisible(!shown_.empty());
    const std::size_t n = shown_.size();
    const std::size_t first = n > minded_at_once + 1 ? minded_at_once : n;  // so many stand by themselves
    while (folded_.size() < n - first) {
        folded_.push_back(line(minded_at_once + folded_.size()));
        more_->body()->addWidget(folded_.back());
    }
    const auto give = [&](MindLine* l, std::size_t i) {
        const Caution* c = i < n ? &shown_[i] : nullptr;
        l->stand_for(c);
        if (!c) return stop_looking(l);
        l->show(*c, units);
        open_.settle(l);
        if (l->open()) look(l, *c);
        else stop_looking(l);
    };
    for (std::size_t i = 0; i < at_once_.size(); ++i) give(at_once_[i], i < first ? i : n);
    for (std::size_t i = 0; i < folded_.size(); ++i) give(folded_[i], first < n ? first + i : n);
    more_->call(first < n ? QStringLiteral("mind_more") : QString());
    more_line_->set_name(tr("%1 more to mind").arg(n - first));
    more_line_->say({});
    open_.settle(more_);
}

QString Minds::open_headline() const {
    for (std::size_t i = 0; i < shown_.size(); ++i) {
        const std::size_t first = shown_.size() > minded_at_once + 1 ? minded_at_once : shown_.size();
        const MindLine* line = i < first ? at_once_.at(i) : folded_.at(i - first);
        if (line->open()) return QString::fromLatin1(headline_of(shown_[i].key));
    }
    return {};
}

void Minds::press_first() {
    if (!shown_.empty()) at_once_.front()->line()->click();
}

}  // namespace yb
