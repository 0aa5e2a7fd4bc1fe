#include "app/kit/slip/slip.h"

#include <QCoreApplication>
#include <QGridLayout>
#include <QLineEdit>
#include <QScrollArea>
#include <QVBoxLayout>

#include "app/ground/theme/theme.h"
#include "app/ground/words.h"
#include "app/kit/fields/field_form.h"
#include "app/kit/slip/doings.h"
#include "app/kit/slip/looks.h"
#include "app/kit/slip/minds.h"
#include "app/kit/slip/next.h"
#include "app/kit/slip/ways.h"
#include "core/shop/job/steps.h"
#include "core/steps/days/days.h"

namespace yb {

namespace {

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

}  // namespace

namespace {
/// What is scrolled: as high as its lines are at the width they have. What lines could wrap to in a narrower one asks for no room.
class Paper : public QWidget {
  public:
    QSize minimumSizeHint() const override { return {QWidget::minimumSizeHint().width(), 0}; }
};
}  // namespace

Slip::Slip(Session& session, QWidget* parent) : QFrame(parent), session_(session) {
    setObjectName("slip_paper");
    setFixedWidth(theme::grown(306));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    build_head(column);
    scroll_ = new QScrollArea;
    scroll_->setObjectName("slip");
    scroll_->setFrameShape(QFrame::NoFrame);
    scroll_->setWidgetResizable(true);
    scroll_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    column->addWidget(scroll_, 1);
    foot_ = new QVBoxLayout;
    foot_->setContentsMargins(18, 4, 16, 10);
    column->addLayout(foot_);
    cost_ = words({}, 9.5, theme::colours().pencil);
    cost_->setObjectName("slip_cost");
    cost_->setAlignment(Qt::AlignHCenter);
    cost_->hide();
    foot_->addWidget(cost_);
    connect(&session, &Session::cost_told, this, [this](const QString& what) {
        set_words(cost_, what.isEmpty() ? QString() : tr("the last change: %1").arg(what));
        cost_->setVisible(!what.isEmpty());
    });
    build_paper();
    pause_.setSingleShot(true);
    pause_.setInterval(60);
    connect(&pause_, &QTimer::timeout, this, &Slip::fill_rest);
    // Its many lines are made once the slip stands there, or when they are wanted.
    form_soon_.setSingleShot(true);
    form_soon_.setInterval(25);
    connect(&form_soon_, &QTimer::timeout, this, &Slip::build_form);
    connect(&session, &Session::changed, this, [this] {
        refresh();
        if (!session_.previewing()) settle();
    });
    connect(&session, &Session::typing_wanted, this, &Slip::type_in);
    connect(&session, &Session::picked_changed, this, [this] {
        keep_typed();
        refresh();
    });
}

void Slip::build_head(QVBoxLayout* column) {
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
}

/// The paper with all its parts; what they say follows what is picked.
void Slip::build_paper() {
    auto* paper = new Paper;
    paper->setObjectName("slip_page");
    auto* box = new QVBoxLayout(paper);
    box->setContentsMargins(18, 0, 16, 0);
    box->setSpacing(3);
    help_ = words({}, 10, theme::colours().ink);
    help_->setObjectName("step_help");
    help_->hide();
    help_->setContentsMargins(0, 0, 0, 6);
    box->addWidget(help_);
    about_ = words({}, 11, theme::colours().ink);
    about_->setObjectName("slip_about");
    about_->setContentsMargins(0, 8, 0, 8);
    about_->hide();
    box->addWidget(about_);
    in_book_ = words({}, 9.5, theme::colours().brass_dark);
    in_book_->setObjectName("slip_book");
    in_book_->hide();
    box->addWidget(in_book_);
    connect(&session_, &Session::book_written, this, &Slip::fill_rest);
    answers_ = new QVBoxLayout;
    answers_->setSpacing(0);
    box->addLayout(answers_);
    looks_ = new Looks;
    box->addWidget(looks_);
    minds_ = new Minds(open_, [this](const Caution& c, QObject* owner, std::function<void(std::optional<Mend>)> came) {
        return session_.look_for_mend(c, owner, std::move(came));
    });
    connect(minds_, &Minds::show_place, this, &Slip::show_place);
    connect(minds_, &Minds::mend, &session_, &Session::mend);
    box->addWidget(minds_);
    doings_ = new Doings(open_);
    box->addWidget(doings_);
    ways_ = new Ways(
        open_, [this](const QString& what, const std::string& key, const std::string& option) { session_.choose(what, key, option); },
        [this](const std::string& choice, QObject* owner, std::function<void(std::vector<ChoiceCost>)> came) {
            return session_.look_for_costs(choice, owner, std::move(came));
        });
    box->addWidget(ways_);
    auto* line = new NamedLine(tr("What you set"));
    line->say({});
    form_fold_ = new Fold({}, line);
    form_fold_->body()->setContentsMargins(0, 4, 0, 4);
    form_fold_->hide();
    open_.follow(form_fold_);
    connect(form_fold_, &Fold::opened, this, &Slip::build_form);
    box->addWidget(form_fold_);
    box->addStretch(1);
    scroll_->setWidget(paper);
}

void Slip::set_step_view(StepView* view) {
    keep_typed();
    view_ = view;
    open_.forget();
    built_for_ = QStringList{{}};  // whatever this one asks for is another's
    if (view_) help_->setText(view_->help() + "\n\n" + keys_text());
    refresh();
    settle();
}

void Slip::keep_typed() {
    QWidget* line = window()->focusWidget();
    if (!form_ || !line || !form_->isAncestorOf(line)) return;
    keeping_ = true;
    line->clearFocus();
    keeping_ = false;
}

/// What can be set now: the lines for it follow a moment later.
void Slip::fill_form() {
    const QStringList asked = asked_for();
    if (asked == built_for_) {
        if (form_) form_->show_values();
        return;
    }
    keep_typed();
    built_for_ = asked;
    clear(form_fold_->body());
    form_ = nullptr;
    const bool any =
        (session_.slab() || session_.job()) && (built_for_.size() > 2 || (session_.about() == "top" && !view_->texts().empty()));
    form_fold_->call(any ? QStringLiteral("what_you_set") : QString());
    open_.settle(form_fold_);
    if (form_fold_->open()) build_form();
    else form_soon_.start();
}

void Slip::build_form() {
    form_soon_.stop();
    ways_->make_bodies();
    if (form_ || !view_ || form_fold_->name().isEmpty()) return;
    const bool top = session_.about() == "top";
    form_ = new FieldForm(session_, top ? view_->texts() : std::vector<TextField>(), about_picked(view_->picks(session_), session_),
                          about_picked(view_->fields(session_), session_));
    form_fold_->body()->addWidget(form_);
}

/// What applies now; what comes next stands at the foot.
void Slip::fill_actions() {
    std::vector<Action> shown, next;
    for (const Action& a : applying(view_->actions(session_), session_)) (a.strong ? next : shown).push_back(a);
    // What is missing comes first: a slab, its measures, a job.
    if (auto missing = next_missing(session_, view_->step())) next = {std::move(*missing)};
    const auto all = steps();
    // A step that this job has no use for is passed over.
    const auto idle = [&](const StepRow& row) {
        const Plan* p = session_.plan();
        if (!p || row.on == StepRow::On::beside || !row.says) return false;
        const auto& ops = p->days->operations;
        if (std::any_of(ops.begin(), ops.end(), [&](const Operation& o) { return o.step == row.step; })) return false;
        const StepPlan& says = *row.says(*p);
        return says.figures.empty() || says.figures.front().value.value == 0;
    };
    for (std::size_t i = 0; next.empty() && i + 1 < all.size(); ++i)
        if (all[i].step == view_->step()) {
            std::size_t k = i + 1;
            while (k + 1 < all.size() && idle(all[k])) ++k;
            const StepRow& to = all[k];
            next.push_back({"next", tr("Next: %1").arg(told(to.coming)), {}, [this, step = to.step] { session_.set_step(step); }});
        }
    while (next_.size() < next.size()) {
        next_.push_back(new ActionButton("next"));
        foot_->addWidget(next_.back());
    }
    for (std::size_t i = 0; i < next_.size(); ++i) {
        if (i < next.size()) next_[i]->give(next[i]);
        else next_[i]->put_away();
    }
    doings_->show(std::move(shown));
}

/// Names of all that can be filled in or picked now.
QStringList Slip::asked_for() const {
    QStringList names;
    names << session_.about() << (session_.slab() || session_.job() ? QStringLiteral("something") : QStringLiteral("nothing"));
    for (const Field& f : about_picked(view_->fields(session_), session_)) names << f.name;
    for (const PickField& f : about_picked(view_->picks(session_), session_)) names << f.name + f.options.join('|');
    return names;
}

/// Lines inside lines: each round of this hands heights one up, so that the first picture of another page is the right one.
void Slip::settle() {
    for (int i = 0; i < 3; ++i) QCoreApplication::sendPostedEvents(nullptr, QEvent::LayoutRequest);
}

void Slip::refresh() {
    if (!view_ || keeping_) return;
    fill_answers();
    if (!session_.previewing()) return fill_rest();
    // While something is dragged the figures follow each move, the rest as soon as the hand is still.
    pause_.start();
}

void Slip::fill_rest() {
    pause_.stop();
    if (!view_) return;
    fill_head();
    const QString about = view_->about(session_);
    set_words(about_, about);
    about_->setVisible(!about.isEmpty());
    QStringList lines;
    for (const BookEntry& e : session_.of_picked())
        lines << tr("In the book, %1: %2")
                     .arg(QString::fromStdString(e.at).left(10),
                          QString::fromStdString(e.what.empty() ? e.value + (e.unit.empty() ? "" : " " + e.unit)
                                                                : e.what + " " + e.value + (e.unit.empty() ? "" : " " + e.unit)));
    set_words(in_book_, lines.join('\n'));
    in_book_->setVisible(!lines.isEmpty());
    looks_->show(view_->looks(session_));
    minds_->show(said_cautions(), session_.units());
    fill_actions();
    ways_->show(said_choices(), session_.units());
    fill_form();
    if (!form_soon_.isActive()) form_soon_.start();
}

void Slip::resizeEvent(QResizeEvent* e) {
    QFrame::resizeEvent(e);
    const bool is = height() < theme::grown(600);
    if (std::exchange(short_of_room_, is) == is) return;
    doings_->be_short(is);
    ways_->be_short(is);
    fill_rest();
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
    while (figures_.size() < figures.size()) {
        auto* line = new FigureLine(figures_.empty());
        open_.follow(line);
        // One working at a time.
        connect(line, &Fold::opened, this, [this, line](bool open) {
            for (FigureLine* other : figures_)
                if (open && other != line && other->open()) open_.close(other);
        });
        answers_->addWidget(line);
        figures_.push_back(line);
    }
    for (std::size_t i = 0; i < figures_.size(); ++i) {
        const bool needed = i < figures.size();
        figures_[i]->stand_for(needed ? QString::fromStdString(figures[i].key) : QString());
        if (!needed) continue;
        open_.settle(figures_[i]);
        figures_[i]->show(figures[i], session_.units(), session_.previewing());
    }
}

QString Slip::keys_text() {
    const auto all = steps();
    const auto numbered = std::count_if(all.begin(), all.end(), [](const StepRow& row) { return row.on != StepRow::On::beside; });
    return tr("1–%1 steps · P sheets · T tape table\nF what could be made · L the log put back together\nTab or ‹ › next thing on the "
              "bench, Esc "
              "the top\n, . gauge, Shift fine\n[ ] pick what can be moved, arrows move it, Ctrl+arrows turn it\n"
              "G type a dimension · W working of the large figure · M first thing to mind\nU turn over · E end for end · O open like a "
              "book\nAlt+↓ ↑ more or less room for the plan\nCtrl+Enter what comes next\nCtrl+Z undo · Ctrl+Shift+Z redo\nCtrl+F find · "
              "Ctrl+U units · J all jobs · S the shop · F1 the guide · Shift+F1 this help")
        .arg(numbered);
}

void Slip::toggle_help() {
    help_open_ = !help_open_;
    help_->setVisible(help_open_);
    if (help_open_) scroll_->ensureVisible(0, 0);
}

void Slip::toggle_workings() {
    if (!said_figures().empty()) figures_.front()->line()->click();
}

QString Slip::open_mind() const { return minds_->open_headline(); }

void Slip::open_first_to_mind() { minds_->press_first(); }

void Slip::type_in(const QString& field) {
    fill_rest();
    build_form();
    auto* line = form_ ? form_->findChild<QWidget*>(field) : nullptr;
    if (!line) return;
    if (!form_fold_->open()) form_fold_->line()->click();
    settle();
    line->setFocus();
    if (auto* typed = qobject_cast<QLineEdit*>(line)) typed->selectAll();
    scroll_->ensureWidgetVisible(line);
}

void Slip::press_next() {
    if (!next_.empty()) next_.front()->click();
}

}  // namespace yb
