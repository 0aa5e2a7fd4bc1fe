#include "app/kit/slip/lines.h"
#include "core/shop/job/headlines.h"

#include <QHBoxLayout>
#include <QPainter>
#include <QVBoxLayout>

#include "app/ground/theme/theme.h"
#include "app/ground/words.h"

namespace yb {

namespace {

QString working_text(const Figure& f, const Units& u) {
    QString out = told(f.working.formula);
    for (const Given& g : f.working.given) {
        out += "\n" + told(g.name) + QString::fromStdString("  " + format(g.value, u));
        if (!g.from.empty()) out += "  – " + told(g.from);
    }
    if (!f.working.source.empty()) out += "\n" + QObject::tr("Source: ") + told(f.working.source);
    return out;
}

QPushButton* link(const QString& text, const QString& name) {
    auto* b = new QPushButton(text);
    b->setObjectName(name);
    b->setProperty("plain", true);
    b->setCursor(Qt::PointingHandCursor);
    return b;
}

/// A line's words let the mouse through to the line.
QLabel* in_line(QLabel* l) {
    l->setAttribute(Qt::WA_TransparentForMouseEvents);
    l->setProperty("in_line", l->palette().color(QPalette::WindowText) == theme::colours().pencil  ? "pencil"
                              : l->palette().color(QPalette::WindowText) == theme::colours().chalk ? "chalk"
                                                                                                   : "ink");
    return l;
}

}  // namespace

QLabel* words(const QString& text, double points, const QColor& ink) {
    auto* l = new QLabel(text);
    l->setFont(theme::text(points));
    l->setWordWrap(true);
    l->setTextFormat(Qt::PlainText);
    QPalette p = l->palette();
    p.setColor(QPalette::WindowText, ink);
    l->setPalette(p);
    return l;
}

bool set_words(QLabel* l, const QString& text) {
    if (l->text() == text) return false;
    l->setText(text);
    return true;
}

void clear(QVBoxLayout* box) {
    while (QLayoutItem* item = box->takeAt(0)) {
        if (QWidget* w = item->widget()) {
            w->hide();
            w->setObjectName({});
            for (QWidget* inner : w->findChildren<QWidget*>()) inner->setObjectName({});
            w->deleteLater();
        }
        delete item;
    }
}

SlipLine::SlipLine(QWidget* parent) : QPushButton(parent) {
    setCursor(Qt::PointingHandCursor);
    setProperty("line", true);
    QSizePolicy p(QSizePolicy::Expanding, QSizePolicy::Minimum);
    p.setHeightForWidth(true);
    setSizePolicy(p);
}

QSize SlipLine::sizeHint() const { return layout() ? layout()->sizeHint() : QPushButton::sizeHint(); }
// As tall as the words need at its width: see heightForWidth().
QSize SlipLine::minimumSizeHint() const {
    return layout() ? QSize(layout()->minimumSize().width(), fontMetrics().height()) : QPushButton::minimumSizeHint();
}
int SlipLine::heightForWidth(int w) const {
    return layout() && layout()->hasHeightForWidth() ? layout()->heightForWidth(w) : sizeHint().height();
}

void SlipLine::paintEvent(QPaintEvent*) {
    QPainter p(this);
    if (underMouse()) p.fillRect(rect(), theme::colours().paper);
    p.setPen(QPen(hasFocus() ? theme::colours().brass : theme::colours().rule, hasFocus() ? 2 : 1));
    p.drawLine(0, height() - 1, width(), height() - 1);
}

Fold::Fold(const QString& name, SlipLine* line, QWidget* parent) : QWidget(parent), line_(line), body_(new QWidget) {
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(0, 0, 0, 0);
    box->setSpacing(0);
    box->addWidget(line_);
    auto* inside = new QVBoxLayout(body_);
    inside->setContentsMargins(8, 3, 0, 6);
    inside->setSpacing(2);
    body_->hide();
    box->addWidget(body_);
    line_->setObjectName(name);
    body_->setProperty("fold", name);
    connect(line_, &QPushButton::clicked, this, [this] {
        set_open(!open_);
        Q_EMIT opened(open_);
    });
}

void Fold::call(const QString& name) {
    setVisible(!name.isEmpty());
    if (name == line_->objectName()) return;
    line_->setObjectName(name);
    body_->setProperty("fold", name);
}

QVBoxLayout* Fold::body() const { return static_cast<QVBoxLayout*>(body_->layout()); }

void Fold::set_open(bool open) {
    if (open_ == open) return;
    open_ = open;
    body_->setVisible(open);
}

void OpenLines::follow(Fold* fold) {
    QObject::connect(fold, &Fold::opened, fold, [this, fold](bool open) {
        if (open) open_.insert(fold->name());
        else open_.erase(fold->name());
    });
}

void OpenLines::close(Fold* fold) {
    fold->set_open(false);
    open_.erase(fold->name());
}

NamedLine::NamedLine(const QString& name)
    : name_(in_line(words({}, 10, theme::colours().pencil))), now_(in_line(words({}, 10, theme::colours().chalk))) {
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(0, 2, 0, 2);
    row->setSpacing(10);
    row->addWidget(name_);
    now_->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
    row->addWidget(now_, 4);
    set_name(name);
}

void NamedLine::set_name(const QString& name) {
    if (!set_words(name_, name)) return;
    name_->setWordWrap(name_->fontMetrics().horizontalAdvance(name) > theme::grown(150));
    static_cast<QHBoxLayout*>(layout())->setStretch(0, name_->wordWrap() ? 3 : 0);
    setAccessibleName(name);
}

void NamedLine::say(const QString& now) {
    const QString text = now.isEmpty() ? QStringLiteral("▾") : now + QStringLiteral(" ▾");
    set_words(now_, text);
}

FigureLine::FigureLine(bool hero) : Fold({}, new SlipLine), hero_(hero) {
    line()->setToolTip(tr("How this was reached (W)"));
    const auto& c = theme::colours();
    name_ = in_line(words({}, 10, c.pencil));
    value_ = in_line(new QLabel);
    value_->setTextFormat(Qt::RichText);
    note_ = words({}, 9, c.pencil);
    work_ = words({}, 9, c.ink);
    if (hero_) {
        auto* column = new QVBoxLayout(line());
        column->setContentsMargins(0, 0, 0, 5);
        column->setSpacing(0);
        column->addWidget(value_);
        column->addWidget(name_);
        in_line(note_);
        column->addWidget(note_);
    } else {
        auto* row = new QHBoxLayout(line());
        row->setContentsMargins(0, 1, 0, 2);
        row->setSpacing(8);
        row->addWidget(name_, 1);
        value_->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
        row->addWidget(value_);
        body()->addWidget(note_);
    }
    body()->addWidget(work_);
}

void FigureLine::stand_for(const QString& key) {
    call(key.isEmpty() ? QString() : "working_" + key);
    const auto name = [&](QLabel* l, const char* part) { l->setObjectName(key.isEmpty() ? QString() : part + key); };
    name(name_, "label_");
    name(value_, "answer_");
    name(note_, "note_");
    name(work_, "work_");
}

void FigureLine::show(const Figure& f, const Units& u, bool dragging) {
    line()->layout()->setEnabled(!dragging);
    const Printed a = print(f.value, u);
    QString number = QString::fromStdString(a.number);
    QString unit = QString::fromStdString(a.unit);
    if (f.second) {
        const Printed b = print(*f.second, u);
        number += (a.unit == b.unit || a.unit.empty() ? "" : " " + unit) + " / " + QString::fromStdString(b.number);
        unit = QString::fromStdString(b.unit);
    }
    set_words(name_, told(f.label));
    const double size = hero_ ? (number.size() > 13 ? 17 : 23) : 12.5;
    set_words(value_, QStringLiteral("<span style=\"font-family:'Roboto Slab'; font-size:%1pt; color:%2\">%3</span>"
                                     "<span style=\"font-family:'Roboto Slab'; font-size:%6pt; color:%4\"> %5</span>")
                          .arg(theme::figures(size).pointSizeF())
                          .arg(theme::colours().ink.name(), number.toHtmlEscaped(), theme::colours().pencil.name(), unit.toHtmlEscaped())
                          .arg(theme::figures(hero_ ? 13 : 10).pointSizeF()));
    if (const QString spoken = told(f.label) + ": " + number + " " + unit; value_->accessibleName() != spoken) {
        value_->setAccessibleName(spoken);
        line()->setAccessibleName(spoken);
    }
    const bool noted = set_words(note_, QString::fromStdString(yb::render(f.note, u)));
    const bool shown = note_->isHidden() == f.note.empty();
    if (!shown) note_->setVisible(!f.note.empty());
    const bool worked = (!dragging || open()) && set_words(work_, working_text(f, u));
    const bool taller = (hero_ && (!shown || (noted && note_->heightForWidth(note_->width()) > note_->height()))) ||
                        (worked && open() && work_->heightForWidth(work_->width()) > work_->height());
    if (dragging && !taller) return;
    line()->layout()->setEnabled(true);
    line()->layout()->invalidate();
}

Sign::Sign() {
    setFixedSize(theme::grown(16), theme::grown(16));
    setAttribute(Qt::WA_TransparentForMouseEvents);
}

void Sign::show(Severity s) {
    if (s == severity_) return;
    severity_ = s;
    update();
}

void Sign::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    theme::draw_sign(p, severity_, QRectF(2, 3, width() - 5, height() - 5));
}

MindLine::MindLine() : Fold({}, new SlipLine), sign_(new Sign) {
    auto* row = new QHBoxLayout(line());
    row->setContentsMargins(0, 2, 0, 2);
    row->setSpacing(7);
    row->addWidget(sign_, 0, Qt::AlignTop);
    headline_ = in_line(words({}, 10, theme::colours().ink));
    row->addWidget(headline_, 1);
    place_ = in_line(words({}, 9.5, theme::colours().pencil));
    place_->setWordWrap(false);
    row->addWidget(place_);
    text_ = words({}, 9.5, theme::colours().ink);
    body()->addWidget(text_);
    auto* ways = new QHBoxLayout;
    ways->setContentsMargins(0, 3, 0, 0);
    mend_ = new QPushButton;
    mend_->setProperty("quiet", true);
    mend_->hide();
    ways->addWidget(mend_);
    ways->addStretch(1);
    way_ = link(tr("show me"), {});
    ways->addWidget(way_);
    body()->addLayout(ways);
}

void MindLine::stand_for(const Caution* c) {
    const QString key = c ? QString::fromStdString(c->key) : QString();
    call(c ? "mind_" + key : QString());
    const auto name = [&](QWidget* w, const char* part) { w->setObjectName(c ? part + key : QString()); };
    name(headline_, "headline_");
    name(text_, "caution_");
    name(mend_, "mend_");
    way_->setObjectName(c && c->at ? "show_" + key : QString());
    way_->setVisible(c && c->at);
}

void MindLine::show(const Caution& c, const Units& u) {
    sign_->show(c.severity);
    set_words(headline_, told(headline_of(c.key)));
    set_words(place_, c.at ? QString::fromStdString(format(along(c.at->x), u)) : QString());
    const QString sentence = told(name_of(c.severity)) + ": " + QString::fromStdString(yb::render(c, u));
    if (set_words(text_, sentence)) line()->setAccessibleName(sentence);
    line()->setToolTip(QString::fromStdString(c.of));
}

void MindLine::offer(const std::optional<Mend>& mend, const Units& u) {
    mend_->setVisible(mend.has_value());
    if (mend) mend_->setText(QString::fromStdString(yb::render(mend->label, u)));
}

}  // namespace yb
