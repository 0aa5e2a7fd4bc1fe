#include "app/slip/slip.h"

#include <QButtonGroup>
#include <QGridLayout>
#include <QLabel>
#include <QPainter>
#include <QPushButton>
#include <QRadioButton>
#include <QTimer>
#include <QVBoxLayout>

#include <utility>

#include "app/slip/field_form.h"
#include "app/theme/theme.h"
#include "app/words.h"

namespace yb {

namespace {

QLabel* label(const QString& text, const QFont& font, const QColor& ink) {
    auto* l = new QLabel(text);
    l->setFont(font);
    l->setWordWrap(true);
    l->setTextFormat(Qt::PlainText);
    QPalette p = l->palette();
    p.setColor(QPalette::WindowText, ink);
    l->setPalette(p);
    return l;
}

QPushButton* link(const QString& text, const QString& name) {
    auto* b = new QPushButton(text);
    b->setObjectName(name);
    b->setProperty("plain", true);
    b->setCursor(Qt::PointingHandCursor);
    return b;
}

QString working_text(const Figure& f, const Units& u) {
    QString out = told(f.working.formula);
    for (const Given& g : f.working.given) {
        out += "\n" + told(g.name) + QString::fromStdString("  " + format(g.value, u));
        if (!g.from.empty()) out += "  – " + told(g.from);
    }
    if (!f.working.source.empty()) out += "\n" + QObject::tr("Source: ") + told(f.working.source);
    return out;
}

/// The leaf it is about first, where there are several.
QString label_of(const Choice& c) { return c.of.empty() ? told(c.label) : QString::fromStdString(c.of) + ": " + told(c.label); }

}  // namespace

/// A caution as a washed panel with its sign drawn, its word and a way to its place.
class CautionBox : public QWidget {
  public:
    explicit CautionBox(const Caution& c) : severity_(c.severity) {
        auto* box = new QVBoxLayout(this);
        box->setContentsMargins(28, 6, 8, 6);
        box->setSpacing(1);
        text = label({}, theme::text(9.5), theme::colours().ink);
        text->setObjectName("caution_" + QString::fromStdString(c.key));
        box->addWidget(text);
        if (c.at) {
            show = link(tr("show me"), "show_" + QString::fromStdString(c.key));
            box->addWidget(show, 0, Qt::AlignRight);
        }
    }
    void say(const QString& sentence) {
        const QString words = told(name_of(severity_)) + ": " + sentence;
        if (text->text() == words) return;
        text->setText(words);
        setAccessibleName(words);
    }
    QLabel* text = nullptr;
    QPushButton* show = nullptr;

  protected:
    void paintEvent(QPaintEvent*) override {
        QPainter p(this);
        p.setRenderHint(QPainter::Antialiasing);
        p.setPen(QPen(theme::ink_of(severity_), 1));
        p.setBrush(theme::wash_of(severity_));
        p.drawRoundedRect(QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5), 2, 2);
        theme::draw_sign(p, severity_, QRectF(9, 10, 11, 11));
    }

  private:
    Severity severity_;
};

namespace {

/// Laying text out is what costs: only where it differs.
/// @returns whether it was another text.
bool set(QLabel* l, const QString& text) {
    if (l->text() == text) return false;
    l->setText(text);
    return true;
}

void clear(QVBoxLayout* box) {
    while (QLayoutItem* item = box->takeAt(0)) {
        if (item->widget()) {
            item->widget()->hide();
            item->widget()->deleteLater();
        }
        delete item;
    }
}

}  // namespace

Slip::Slip(Session& session, QWidget* parent) : QScrollArea(parent), session_(session) {
    setObjectName("slip");
    setFixedWidth(theme::grown(306));
    setFrameShape(QFrame::NoFrame);
    setWidgetResizable(true);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    pause_.setSingleShot(true);
    pause_.setInterval(60);
    connect(&pause_, &QTimer::timeout, this, &Slip::fill_rest);
    connect(&session, &Session::changed, this, &Slip::refresh);
}

void Slip::set_step_view(StepView* view) {
    view_ = view;
    workings_open_ = false;
    rebuild();
}

QLabel* Slip::heading(const QString& text) { return label(text, theme::text(9.5, true), theme::colours().pencil); }

void Slip::rebuild() {
    // What is typed and not yet entered is kept before its line goes; what comes of that is shown by what is built here.
    keeping_ = true;
    if (QWidget* line = window()->focusWidget(); line && line != this && isAncestorOf(line)) line->clearFocus();
    keeping_ = false;
    // The old page may be what called: it goes when it has come to its end.
    if (QWidget* old = takeWidget()) old->deleteLater();
    auto* page = new QWidget;
    page->setObjectName("slip_page");
    page->setStyleSheet(QStringLiteral("QWidget#slip_page { background: %1; }").arg(theme::colours().slip.name()));
    auto* box = new QVBoxLayout(page);
    box->setContentsMargins(18, 12, 16, 14);
    box->setSpacing(7);
    answer_keys_.clear(), choice_keys_.clear(), caution_keys_.clear(), answer_widgets_.clear();
    help_ = label({}, theme::text(10), theme::colours().ink);
    help_->setObjectName("step_help");
    help_->setVisible(help_open_);
    help_->setContentsMargins(0, 0, 0, 6);
    if (view_) help_->setText(view_->help() + "\n\n" + keys_text());
    box->addWidget(help_);
    answers_ = new QVBoxLayout;
    answers_->setSpacing(6);
    box->addLayout(answers_);
    mind_ = heading(tr("Mind"));
    box->addWidget(mind_);
    cautions_ = new QVBoxLayout;
    cautions_->setSpacing(5);
    box->addLayout(cautions_);
    choices_ = new QVBoxLayout;
    choices_->setSpacing(2);
    box->addLayout(choices_);
    form_ = nullptr;
    if (view_) {
        auto* form = new FieldForm(session_, view_->texts(), view_->picks(session_), view_->fields(session_));
        built_for_ = asked_for();
        if (form->empty()) {
            delete form;
        } else {
            box->addSpacing(4);
            box->addWidget(heading(tr("What you set")));
            box->addWidget(form);
            form_ = form;
        }
    }
    if (view_)
        for (const Action& a : view_->actions(session_)) {
            auto* b = new QPushButton(a.label);
            b->setObjectName(a.name);
            b->setToolTip(a.tip);
            b->setEnabled(a.enabled);
            b->setProperty(a.strong ? "next" : "quiet", true);
            const auto run = a.run;
            connect(b, &QPushButton::clicked, this, [run] { run(); });
            box->addWidget(b);
        }
    box->addStretch(1);
    setWidget(page);
    refresh();
}

/// Names of all that can be filled in or picked now.
QStringList Slip::asked_for() const {
    QStringList names;
    for (const Field& f : view_->fields(session_)) names << f.name;
    for (const PickField& f : view_->picks(session_)) names << f.name + f.options.join('|');
    return names;
}

void Slip::refresh() {
    if (!view_ || !widget() || keeping_) return;
    if (!session_.previewing() && asked_for() != built_for_) return rebuild();
    fill_answers();
    if (!session_.previewing()) return fill_rest();
    // While something is dragged the figures follow each move, the rest as soon as the hand is still.
    pause_.start();
}

void Slip::fill_rest() {
    pause_.stop();
    fill_cautions();
    fill_choices();
    if (form_) form_->show_values();
}

void Slip::fill_answers() {
    const StepPlan* said = session_.plan() ? &session_.plan()->said(view_->step()) : nullptr;
    const std::vector<Figure> figures = said ? said->figures : std::vector<Figure>{};
    std::vector<std::string> keys;
    for (const Figure& f : figures) keys.push_back(f.key);
    if (keys != answer_keys_) {
        clear(answers_);
        answer_widgets_.clear();
        answer_keys_ = keys;
        for (const Figure& f : figures) {
            const QString key = QString::fromStdString(f.key);
            auto* w = new QWidget;
            auto* grid = new QGridLayout(w);
            grid->setContentsMargins(0, 0, 0, 0);
            grid->setSpacing(0);
            auto* name = label({}, theme::text(10), theme::colours().pencil);
            name->setObjectName("label_" + key);
            auto* value = new QLabel;
            value->setObjectName("answer_" + key);
            value->setTextFormat(Qt::RichText);
            auto* note = label({}, theme::text(9), theme::colours().pencil);
            note->setObjectName("note_" + key);
            auto* more = link(tr("working"), "working_" + key);
            more->setToolTip(tr("How this was reached (W)"));
            auto* work = label({}, theme::text(9), theme::colours().ink);
            work->setObjectName("work_" + key);
            work->setVisible(workings_open_);
            work->setContentsMargins(8, 3, 0, 3);
            connect(more, &QPushButton::clicked, work, [work] { work->setVisible(!work->isVisible()); });
            grid->addWidget(name, 0, 0, 1, 2);
            grid->addWidget(value, 1, 0);
            grid->addWidget(more, 1, 1, Qt::AlignRight | Qt::AlignBottom);
            grid->addWidget(note, 2, 0, 1, 2);
            grid->addWidget(work, 3, 0, 1, 2);
            grid->setColumnStretch(0, 1);
            answers_->addWidget(w);
            answer_widgets_[f.key] = w;
        }
    }
    const Units& u = session_.units();
    for (const Figure& f : figures) {
        QWidget* w = answer_widgets_[f.key];
        // Under the hand an answer keeps its place on the slip; it is laid out anew only where its note wants another line.
        w->layout()->setEnabled(!session_.previewing());
        const QString key = QString::fromStdString(f.key);
        const Printed a = print(f.value, u);
        QString number = QString::fromStdString(a.number);
        QString unit = QString::fromStdString(a.unit);
        if (f.second) {
            const Printed b = print(*f.second, u);
            number += (a.unit == b.unit || a.unit.empty() ? "" : " " + unit) + " / " + QString::fromStdString(b.number);
            unit = QString::fromStdString(b.unit);
        }
        set(w->findChild<QLabel*>("label_" + key), told(f.label));
        auto* value = w->findChild<QLabel*>("answer_" + key);
        const double size = theme::figures(number.size() > 13 ? 15 : 20).pointSizeF();
        set(value, QStringLiteral("<span style=\"font-family:'Roboto Slab'; font-size:%1pt; color:%2\">%3</span>"
                                  "<span style=\"font-family:'Roboto Slab'; font-size:%6pt; color:%4\"> %5</span>")
                       .arg(size)
                       .arg(theme::colours().ink.name(), number.toHtmlEscaped(), theme::colours().pencil.name(), unit.toHtmlEscaped())
                       .arg(theme::figures(12).pointSizeF()));
        if (const QString spoken = told(f.label) + ": " + number + " " + unit; value->accessibleName() != spoken)
            value->setAccessibleName(spoken);
        auto* note = w->findChild<QLabel*>("note_" + key);
        const bool noted = set(note, QString::fromStdString(yb::render(f.note, u)));
        const bool shown = note->isHidden() == f.note.empty();
        if (!shown) note->setVisible(!f.note.empty());
        auto* work = w->findChild<QLabel*>("work_" + key);
        const bool worked = (!session_.previewing() || !work->isHidden()) && set(work, working_text(f, u));
        const bool taller = !shown || (noted && note->heightForWidth(note->width()) > note->height()) ||
                            (worked && !work->isHidden() && work->heightForWidth(work->width()) > work->height());
        if (!session_.previewing() || taller) {
            w->layout()->setEnabled(true);
            w->layout()->invalidate();
        }
    }
}

QString Slip::keys_text() {
    return tr(
        "1–5 steps · P sheets · T tape table\nF what could be made · L the log put back together\n, . gauge, Shift fine\n[ ] pick a thing "
        "on the bench, arrows move it, Ctrl+arrows turn it\n"
        "G type a dimension · W workings\nU turn over · E end for end · O open like a book\nCtrl+Z undo · Ctrl+Shift+Z redo\nCtrl+F find · "
        "Ctrl+U units · F1 "
        "this help");
}

void Slip::toggle_help() {
    help_open_ = !help_open_;
    if (help_) help_->setVisible(help_open_);
    if (help_open_) ensureVisible(0, 0);
}

void Slip::toggle_workings() {
    workings_open_ = !workings_open_;
    for (const auto& [key, w] : answer_widgets_) w->findChild<QLabel*>("work_" + QString::fromStdString(key))->setVisible(workings_open_);
}

void Slip::fill_cautions() {
    std::vector<Caution> list;
    if (session_.plan()) list = session_.plan()->said(view_->step()).cautions;
    mind_->setVisible(!list.empty());
    std::vector<std::string> keys;
    for (const Caution& c : list) keys.push_back(c.key + name_of(c.severity) + (c.at ? "@" : ""));
    if (keys != caution_keys_) {
        caution_keys_ = keys;
        clear(cautions_);
        caution_boxes_.clear();
        for (const Caution& c : list) {
            auto* box = new CautionBox(c);
            const std::size_t i = caution_boxes_.size();
            if (box->show) connect(box->show, &QPushButton::clicked, this, [this, i] { Q_EMIT show_place(shown_cautions_.at(i)); });
            cautions_->addWidget(box);
            caution_boxes_.push_back(box);
        }
    }
    for (std::size_t i = 0; i < list.size(); ++i) caution_boxes_[i]->say(QString::fromStdString(yb::render(list[i], session_.units())));
    shown_cautions_ = std::move(list);
}

void Slip::fill_choices() {
    const std::vector<Choice> list = session_.plan() ? session_.plan()->said(view_->step()).choices : std::vector<Choice>{};
    std::vector<std::string> keys;
    for (const Choice& c : list) {
        keys.push_back(c.key);
        for (const Option& o : c.options) keys.push_back(o.key);
    }
    if (keys != choice_keys_) {
        choice_keys_ = keys;
        clear(choices_);
        for (const Choice& c : list) {
            auto* w = new QWidget;
            auto* box = new QVBoxLayout(w);
            box->setContentsMargins(0, 4, 0, 0);
            box->setSpacing(0);
            box->addWidget(heading(label_of(c)));
            for (const Option& o : c.options) {
                const QString name = QString::fromStdString(c.key + "_" + o.key);
                auto* radio = new QRadioButton(o.advised ? tr("%1 (advised)").arg(told(o.label)) : told(o.label));
                radio->setObjectName("choice_" + name);
                auto* what = label({}, theme::text(9), theme::colours().pencil);
                what->setObjectName("gain_" + name);
                what->setContentsMargins(20, 0, 0, 2);
                box->addWidget(radio);
                box->addWidget(what);
                connect(radio, &QRadioButton::clicked, this,
                        [this, c, o] { session_.choose(label_of(c) + ": " + told(o.label), c.key, o.key); });
            }
            choices_->addWidget(w);
        }
    }
    for (const Choice& c : list)
        for (const Option& o : c.options) {
            const QString name = QString::fromStdString(c.key + "_" + o.key);
            if (auto* r = findChild<QRadioButton*>("choice_" + name)) r->setChecked(o.chosen);
            if (auto* l = findChild<QLabel*>("gain_" + name)) set(l, QString::fromStdString(yb::render(o.consequence, session_.units())));
        }
}

}  // namespace yb
