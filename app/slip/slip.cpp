#include "app/slip/slip.h"

#include <QGridLayout>
#include <QRadioButton>
#include <QScrollArea>
#include <QVBoxLayout>

#include "app/slip/field_form.h"
#include "app/slip/lines.h"
#include "app/steps.h"
#include "app/theme/theme.h"
#include "app/words.h"
#include "core/job/steps.h"

namespace yb {

namespace {

constexpr std::size_t minded_at_once = 3;
constexpr std::size_t ways_at_once = 3;  ///< of choosing; of more two and the rest folded
constexpr int done_at_once = 4;          ///< places, two side by side

/// The leaf it is about first, where there are several.
QString label_of(const Choice& c) { return c.of.empty() ? told(c.label) : QString::fromStdString(c.of) + ": " + told(c.label); }

void clear(QVBoxLayout* box) {
    while (QLayoutItem* item = box->takeAt(0)) {
        if (item->widget()) {
            // It may be what called: it is out of sight at once and goes when it has come to its end.
            item->widget()->hide();
            item->widget()->setParent(nullptr);
            item->widget()->deleteLater();
        }
        delete item;
    }
}

QLabel* heading(const QString& text) { return words(text, 9.5, theme::colours().pencil); }

QPushButton* arrow(const QString& sign, const QString& name, const QString& spoken) {
    auto* b = new QPushButton(sign);
    b->setObjectName(name);
    b->setProperty("plain", true);
    b->setFont(theme::text(13));
    b->setCursor(Qt::PointingHandCursor);
    b->setAccessibleName(spoken);
    b->setToolTip(spoken);
    return b;
}

QPushButton* button_of(const Action& a, const char* look) {
    auto* b = new QPushButton(a.label);
    b->setObjectName(a.name);
    b->setToolTip(a.tip);
    b->setEnabled(a.enabled);
    b->setProperty(look, true);
    QObject::connect(b, &QPushButton::clicked, b, [run = a.run] { run(); });
    return b;
}

}  // namespace

Slip::Slip(Session& session, QWidget* parent) : QFrame(parent), session_(session) {
    setObjectName("slip_paper");
    setFixedWidth(theme::grown(306));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    auto* head = new QWidget;
    auto* row = new QGridLayout(head);
    row->setContentsMargins(14, 7, 12, 2);
    row->setSpacing(0);
    before_ = arrow(QStringLiteral("‹"), "slip_before", tr("The thing before"));
    after_ = arrow(QStringLiteral("›"), "slip_after", tr("The thing after"));
    title_ = words({}, 10.5, theme::colours().ink);
    title_->setObjectName("slip_title");
    title_->setAlignment(Qt::AlignCenter);
    which_ = words({}, 9, theme::colours().pencil);
    which_->setObjectName("slip_which");
    which_->setAlignment(Qt::AlignCenter);
    row->addWidget(before_, 0, 0);
    row->addWidget(title_, 0, 1);
    row->addWidget(after_, 0, 2);
    row->addWidget(which_, 1, 1);
    row->setColumnStretch(1, 1);
    column->addWidget(head);
    connect(before_, &QPushButton::clicked, this, [this] { session_.pick_next(-1); });
    connect(after_, &QPushButton::clicked, this, [this] { session_.pick_next(1); });
    scroll_ = new QScrollArea;
    scroll_->setObjectName("slip");
    scroll_->setFrameShape(QFrame::NoFrame);
    scroll_->setWidgetResizable(true);
    scroll_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    column->addWidget(scroll_, 1);
    foot_ = new QVBoxLayout;
    foot_->setContentsMargins(18, 4, 16, 10);
    column->addLayout(foot_);
    pause_.setSingleShot(true);
    pause_.setInterval(60);
    connect(&pause_, &QTimer::timeout, this, &Slip::fill_rest);
    // Its many lines are made once the slip stands there, or when they are wanted.
    form_soon_.setSingleShot(true);
    form_soon_.setInterval(25);
    connect(&form_soon_, &QTimer::timeout, this, &Slip::build_form);
    connect(&session, &Session::changed, this, [this] {
        forget_pages();
        refresh();
    });
    connect(&session, &Session::picked_changed, this, &Slip::show_picked);
}

void Slip::set_step_view(StepView* view) {
    view_ = view;
    open_.clear();
    rebuild();
}

Slip::~Slip() = default;

void Slip::forget_pages() {
    // One of them may be what called.
    for (auto& [about, kept] : kept_) kept.widget.release()->deleteLater();
    kept_.clear();
}

void Slip::show_picked() {
    if (!view_ || !scroll_->widget() || keeping_) return;
    const QString about = session_.about();
    if (about == page_about_) return refresh();
    // What is typed and not yet entered goes into the job first; what comes of that is another page.
    QWidget* line = window()->focusWidget();
    if (line && line != this && scroll_->widget()->isAncestorOf(line)) return rebuild();
    const auto it = kept_.find(about);
    if (it == kept_.end()) {
        Page now = page();
        std::unique_ptr<QWidget> widget(scroll_->takeWidget());
        widget->hide();
        form_soon_.stop();
        kept_.insert_or_assign(page_about_, Kept{std::move(widget), std::move(now)});
        return build();
    }
    Kept next = std::move(it->second);
    kept_.erase(it);
    Page now = page();
    std::unique_ptr<QWidget> widget(scroll_->takeWidget());
    widget->hide();
    kept_.insert_or_assign(page_about_, Kept{std::move(widget), std::move(now)});
    page() = std::move(next.page);
    page_about_ = about;
    scroll_->setWidget(next.widget.release());
    scroll_->widget()->show();
    if (form_fold_ && !form_) form_soon_.start();
    refresh();
}

void Slip::remember(Fold* fold) {
    const QString name = fold->line()->objectName();
    if (open_.count(name)) fold->set_open(true);
    connect(fold, &Fold::opened, this, [this, name](bool open) {
        if (open) open_.insert(name);
        else open_.erase(name);
    });
}

void Slip::rebuild() {
    // What is typed and not yet entered is kept before its line goes; what comes of that is shown by what is built here.
    keeping_ = true;
    if (QWidget* line = window()->focusWidget(); line && line != this && isAncestorOf(line)) line->clearFocus();
    keeping_ = false;
    // The old page may be what called: it goes when it has come to its end.
    if (QWidget* old = scroll_->takeWidget()) old->deleteLater();
    forget_pages();
    build();
}

void Slip::build() {
    clear(foot_);
    page_about_ = session_.about();
    auto* paper = new QWidget;
    paper->setObjectName("slip_page");
    auto* box = new QVBoxLayout(paper);
    box->setContentsMargins(18, 0, 16, 0);
    box->setSpacing(3);
    answer_keys_.clear(), choice_keys_.clear(), caution_keys_.clear();
    figures_.clear(), minded_.clear(), hows_.clear();
    more_to_mind_ = nullptr;
    help_ = words({}, 10, theme::colours().ink);
    help_->setObjectName("step_help");
    help_->setVisible(help_open_);
    help_->setContentsMargins(0, 0, 0, 6);
    if (view_) help_->setText(view_->help() + "\n\n" + keys_text());
    box->addWidget(help_);
    answers_ = new QVBoxLayout;
    answers_->setSpacing(0);
    box->addLayout(answers_);
    mind_ = heading(tr("Mind"));
    box->addWidget(mind_);
    cautions_ = new QVBoxLayout;
    cautions_->setSpacing(0);
    box->addLayout(cautions_);
    form_ = nullptr;
    form_fold_ = nullptr;
    shown_cautions_.clear();
    if (view_) fill_actions(box);
    choices_ = new QVBoxLayout;
    choices_->setSpacing(0);
    box->addLayout(choices_);
    if (view_) add_form(box);
    box->addStretch(1);
    scroll_->setWidget(paper);
    refresh();
}

void Slip::add_form(QVBoxLayout* box) {
    built_for_ = asked_for();
    form_fold_ = nullptr;
    const bool top = session_.about() == "top";
    if ((!top || view_->texts().empty()) && built_for_.size() < 2) return;  // nothing can be set
    auto* line = new NamedLine(tr("What you set"));
    line->say({});
    form_fold_ = new Fold("what_you_set", line);
    form_fold_->body()->setContentsMargins(0, 4, 0, 4);
    connect(form_fold_, &Fold::opened, this, [this] { build_form(); });
    box->addWidget(form_fold_);
    remember(form_fold_);
    if (form_fold_->open()) build_form();
    else form_soon_.start();
}

void Slip::build_form() {
    form_soon_.stop();
    if (form_ || !form_fold_) return;
    const bool top = session_.about() == "top";
    form_ = new FieldForm(session_, top ? view_->texts() : std::vector<TextField>(), about_picked(view_->picks(session_), session_),
                          about_picked(view_->fields(session_), session_));
    form_fold_->body()->addWidget(form_);
}

/// What applies now, the first two lines of it; the rest is folded, what comes next stands at the foot.
void Slip::fill_actions(QVBoxLayout* box) {
    std::vector<Action> shown;
    bool next = false;
    for (const Action& a : applying(view_->actions(session_), session_)) {
        if (a.strong) foot_->addWidget(button_of(a, "next")), next = true;
        else shown.push_back(a);
    }
    if (!next) {
        const auto all = step_views();
        for (std::size_t i = 0; i + 1 < all.size(); ++i)
            if (all[i].step == view_->step()) {
                const Step to = all[i + 1].step;
                foot_->addWidget(
                    button_of({"next", tr("Next: %1").arg(told(name_of(to))), {}, [this, to] { session_.set_step(to); }}, "next"));
            }
    }
    if (shown.empty()) return;
    auto* grid = new QGridLayout;
    grid->setContentsMargins(0, 5, 0, 5);
    grid->setSpacing(5);
    // What can be pressed now comes first.
    std::stable_partition(shown.begin(), shown.end(), [](const Action& a) { return a.enabled; });
    std::vector<Action> rest;
    int at_once = 0;
    for (const Action& a : shown) {
        if (!a.enabled || at_once >= done_at_once) {
            rest.push_back(a);
            continue;
        }
        auto* b = button_of(a, "quiet");
        // Long words take a line of their own.
        const bool wide = b->fontMetrics().horizontalAdvance(a.label) > theme::grown(112);
        if (wide && at_once % 2) ++at_once;
        if (at_once >= done_at_once) {
            delete b;
            rest.push_back(a);
            continue;
        }
        grid->addWidget(b, at_once / 2, at_once % 2, 1, wide ? 2 : 1);
        at_once += wide ? 2 : 1;
    }
    if (rest.empty()) {
        box->addWidget(heading(tr("Do")));
        box->addLayout(grid);
        return;
    }
    auto* line = new NamedLine(tr("Do"));
    line->say(tr("%1 more").arg(rest.size()));
    auto* fold = new Fold("do_more", line);
    static_cast<QVBoxLayout*>(fold->layout())->insertLayout(1, grid);
    fold->body()->setContentsMargins(0, 0, 0, 5);
    for (const Action& a : rest) fold->body()->addWidget(button_of(a, "quiet"));
    remember(fold);
    box->addWidget(fold);
}

/// Names of all that can be filled in or picked now.
QStringList Slip::asked_for() const {
    QStringList names;
    names << session_.about();
    for (const Field& f : about_picked(view_->fields(session_), session_)) names << f.name;
    for (const PickField& f : about_picked(view_->picks(session_), session_)) names << f.name + f.options.join('|');
    return names;
}

void Slip::refresh() {
    if (!view_ || !scroll_->widget() || keeping_) return;
    if (!session_.previewing() && asked_for() != built_for_) return rebuild();
    fill_answers();
    if (!session_.previewing()) return fill_rest();
    // While something is dragged the figures follow each move, the rest as soon as the hand is still.
    pause_.start();
}

void Slip::fill_rest() {
    pause_.stop();
    fill_head();
    fill_cautions();
    fill_choices();
    if (form_) form_->show_values();
}

void Slip::fill_head() {
    const auto& all = session_.things();
    const Thing* thing = session_.about() == "top" ? nullptr : session_.picked_thing();
    const int leaves = session_.leaves() ? static_cast<int>(session_.leaves()->size()) : 0;
    QString which;
    if (thing) {
        const auto same = [&](const Thing& t) { return t.kind == thing->kind; };
        which = tr("%1 of %2 · Esc: the top").arg(thing->index + 1).arg(std::count_if(all.begin(), all.end(), same));
    } else if (leaves > 1 && session_.step() != step_key::rack) {
        which = session_.whole() ? tr("the whole of %1 leaves").arg(leaves) : tr("leaf %1 of %2").arg(session_.leaf() + 1).arg(leaves);
    }
    set_words(title_, thing             ? QString::fromStdString(yb::render(thing->title, session_.units()))
                      : session_.plan() ? QString::fromStdString(yb::render(session_.plan()->title, session_.units()))
                                        : told(name_of(view_->step())));
    set_words(which_, which);
    which_->setVisible(!which.isEmpty());
    for (QPushButton* b : {before_, after_}) b->setVisible(!all.empty());
}

const std::vector<Figure>& Slip::said_figures() const {
    static const std::vector<Figure> none;
    if (const Thing* thing = session_.picked_thing(); thing && !thing->figures.empty()) return thing->figures;
    return session_.plan() ? session_.plan()->said(view_->step()).figures : none;
}

std::vector<Caution> Slip::said_cautions() const {
    std::vector<Caution> out = session_.plan() ? session_.plan()->said(view_->step()).cautions : std::vector<Caution>{};
    if (const Thing* thing = session_.picked_thing(); thing && !thing->figures.empty())
        std::erase_if(out, [&](const Caution& c) { return !concerns(c, *thing); });
    return out;
}

std::vector<Choice> Slip::said_choices() const {
    std::vector<Choice> out = session_.plan() ? session_.plan()->said(view_->step()).choices : std::vector<Choice>{};
    const auto has = [](const Thing& t, const Choice& c) {
        return std::find(t.choices.begin(), t.choices.end(), c.key) != t.choices.end();
    };
    const Thing* thing = session_.picked_thing();
    if (thing && thing->figures.empty()) return out;
    std::erase_if(out, [&](const Choice& c) {
        if (thing) return !has(*thing, c);
        const auto& all = session_.things();
        return std::any_of(all.begin(), all.end(), [&](const Thing& t) { return has(t, c); });
    });
    return out;
}

void Slip::fill_answers() {
    const std::vector<Figure>& figures = said_figures();
    std::vector<std::string> keys;
    for (const Figure& f : figures) keys.push_back(f.key);
    if (keys != answer_keys_) {
        clear(answers_);
        figures_.clear();
        answer_keys_ = keys;
        for (const Figure& f : figures) {
            auto* line = new FigureLine(QString::fromStdString(f.key), figures_.empty());
            remember(line);
            // One working at a time.
            connect(line, &Fold::opened, this, [this, line](bool open) {
                for (FigureLine* other : figures_)
                    if (open && other != line && other->open()) other->set_open(false), open_.erase(other->line()->objectName());
            });
            answers_->addWidget(line);
            figures_.push_back(line);
        }
    }
    for (std::size_t i = 0; i < figures.size(); ++i) figures_[i]->show(figures[i], session_.units(), session_.previewing());
}

QString Slip::keys_text() {
    return tr(
        "1–5 steps · P sheets · T tape table\nF what could be made · L the log put back together\nTab or ‹ › next thing on the bench, Esc "
        "the top\n, . gauge, Shift fine\n[ ] pick what can be moved, arrows move it, Ctrl+arrows turn it\n"
        "G type a dimension · W working of the large figure · M first thing to mind\nU turn over · E end for end · O open like a "
        "book\nAlt+↓ ↑ more or less room for the plan\nCtrl+Enter what comes next\nCtrl+Z undo · Ctrl+Shift+Z redo\nCtrl+F find · "
        "Ctrl+U units · F1 this help");
}

void Slip::toggle_help() {
    help_open_ = !help_open_;
    if (help_) help_->setVisible(help_open_);
    if (help_open_) scroll_->ensureVisible(0, 0);
}

void Slip::toggle_workings() {
    if (!figures_.empty()) figures_.front()->line()->click();
}

void Slip::open_first_to_mind() {
    if (!minded_.empty()) minded_.front()->line()->click();
}

void Slip::press_next() {
    if (foot_->count() == 0) return;
    if (auto* next = qobject_cast<QPushButton*>(foot_->itemAt(0)->widget())) next->click();
}

void Slip::fill_cautions() {
    std::vector<Caution> list = said_cautions();
    mind_->setVisible(!list.empty());
    std::vector<std::string> keys;
    for (const Caution& c : list) keys.push_back(c.key + name_of(c.severity) + (c.at ? "@" : ""));
    if (keys != caution_keys_) {
        caution_keys_ = keys;
        clear(cautions_);
        minded_.clear();
        more_to_mind_ = nullptr;
        for (const Caution& c : list) {
            auto* line = new MindLine(c);
            const std::size_t i = minded_.size();
            if (line->way()) connect(line->way(), &QPushButton::clicked, this, [this, i] { Q_EMIT show_place(shown_cautions_.at(i)); });
            connect(line->mend(), &QPushButton::clicked, this, [this, i] { session_.mend(shown_cautions_.at(i)); });
            remember(line);
            // What can be done about it is tried when somebody asks.
            connect(line, &Fold::opened, this, [this, i](bool open) {
                if (open && i < shown_cautions_.size()) minded_.at(i)->offer(session_.mend_for(shown_cautions_.at(i)), session_.units());
            });
            if (i == minded_at_once && list.size() > minded_at_once + 1) {
                auto* more = new NamedLine(tr("%1 more to mind").arg(list.size() - minded_at_once));
                more->say({});
                more_to_mind_ = new Fold("mind_more", more);
                more_to_mind_->body()->setContentsMargins(0, 0, 0, 0);
                remember(more_to_mind_);
                cautions_->addWidget(more_to_mind_);
            }
            if (more_to_mind_) more_to_mind_->body()->addWidget(line);
            else cautions_->addWidget(line);
            minded_.push_back(line);
        }
    }
    for (std::size_t i = 0; i < list.size(); ++i) {
        minded_[i]->show(list[i], session_.units());
        if (minded_[i]->open()) minded_[i]->offer(session_.mend_for(list[i]), session_.units());
    }
    shown_cautions_ = std::move(list);
}

void Slip::fill_choices() {
    const std::vector<Choice> list = said_choices();
    std::vector<std::string> keys;
    for (const Choice& c : list) {
        keys.push_back(c.key);
        for (const Option& o : c.options) keys.push_back(o.key);
    }
    if (keys != choice_keys_) {
        choice_keys_ = keys;
        clear(choices_);
        hows_.clear();
        QVBoxLayout* into = choices_;
        for (const Choice& c : list) {
            if (hows_.size() + 1 == ways_at_once && list.size() > ways_at_once) {
                auto* more = new NamedLine(tr("%1 more ways to choose").arg(list.size() - hows_.size()));
                more->say({});
                auto* rest = new Fold("how_more", more);
                rest->body()->setContentsMargins(0, 0, 0, 0);
                remember(rest);
                choices_->addWidget(rest);
                into = rest->body();
            }
            auto* line = new NamedLine(label_of(c));
            auto* fold = new Fold("how_" + QString::fromStdString(c.key), line);
            hows_.push_back(line);
            for (const Option& o : c.options) {
                const QString name = QString::fromStdString(c.key + "_" + o.key);
                auto* radio = new QRadioButton(o.advised ? tr("%1 (advised)").arg(told(o.label)) : told(o.label));
                radio->setObjectName("choice_" + name);
                auto* what = words({}, 9, theme::colours().pencil);
                what->setObjectName("gain_" + name);
                what->setContentsMargins(20, 0, 0, 2);
                fold->body()->addWidget(radio);
                fold->body()->addWidget(what);
                connect(radio, &QRadioButton::clicked, this,
                        [this, c, o] { session_.choose(label_of(c) + ": " + told(o.label), c.key, o.key); });
            }
            remember(fold);
            into->addWidget(fold);
        }
    }
    for (std::size_t i = 0; i < list.size(); ++i) {
        const Choice& c = list[i];
        for (const Option& o : c.options) {
            const QString name = QString::fromStdString(c.key + "_" + o.key);
            if (o.chosen) hows_[i]->say(told(o.label));
            if (auto* r = findChild<QRadioButton*>("choice_" + name)) r->setChecked(o.chosen);
            if (auto* l = findChild<QLabel*>("gain_" + name))
                set_words(l, QString::fromStdString(yb::render(o.consequence, session_.units())));
        }
    }
}

}  // namespace yb
