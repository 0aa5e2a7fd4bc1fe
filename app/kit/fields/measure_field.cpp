#include "app/kit/fields/measure_field.h"

#include <QHBoxLayout>
#include <QRegularExpression>
#include <QStyle>
#include <QVBoxLayout>

#include "app/ground/theme/theme.h"

namespace yb {

MeasureField::MeasureField(const QString& name, Kind kind, QWidget* parent)
    : QWidget(parent), kind_(kind), line_(new QLineEdit(this)), hint_(new QLabel(this)), unit_(new QLabel(line_)) {
    line_->setObjectName(name);
    line_->setProperty("measure", true);
    line_->setAlignment(Qt::AlignRight);
    line_->setFont(theme::figures(10));
    hint_->setObjectName(name + QStringLiteral("_hint"));
    hint_->setWordWrap(true);
    hint_->setFont(theme::text(8.5));
    hint_->hide();
    // The unit stands inside, where the text itself carries none.
    unit_->setFont(theme::text(9));
    unit_->setAttribute(Qt::WA_TransparentForMouseEvents);
    unit_->setStyleSheet(QStringLiteral("color: %1; background: transparent").arg(theme::colours().pencil.name()));
    auto* inside = new QHBoxLayout(line_);
    inside->setContentsMargins(0, 0, 2, 0);
    inside->addStretch(1);
    inside->addWidget(unit_);
    connect(line_, &QLineEdit::textEdited, this, &MeasureField::understood);
    connect(line_, &QLineEdit::textChanged, this, &MeasureField::show_unit);
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(0, 0, 0, 0);
    box->setSpacing(0);
    box->addWidget(line_);
    box->addWidget(hint_);
    setFocusProxy(line_);
    connect(line_, &QLineEdit::editingFinished, this, &MeasureField::commit);
}

MeasureField::~MeasureField() {
    line_->disconnect(this);  // going, it loses the focus and would report here once more
}

void MeasureField::show_value(std::optional<double> value, const Units& units) {
    const bool same = value == value_ && units == units_;
    value_ = value;
    units_ = units;
    show_unit();
    if (bad_ || (line_->hasFocus() && line_->isModified()) || (same && !line_->text().isEmpty())) return;
    line_->setText(value ? QString::fromStdString(edit_text({*value, kind_}, units)) : QString());
    line_->setModified(false);
}

void MeasureField::hint(const QString& text, const QColor& ink) {
    hint_->setText(text);
    hint_->setStyleSheet(QStringLiteral("color: %1").arg(ink.name()));
    hint_->setVisible(!text.isEmpty());
}

void MeasureField::show_unit() {
    const bool length = kind_ == Kind::length || kind_ == Kind::fine || kind_ == Kind::along;
    bool bare = false;
    line_->text().toDouble(&bare);
    unit_->setText(length && bare ? units_.metric_length() ? QStringLiteral("mm") : QStringLiteral("in") : QString());
    line_->setTextMargins(0, 0, unit_->text().isEmpty() ? 0 : unit_->sizeHint().width() + 3, 0);
}

void MeasureField::understood(const QString& text) {
    const auto read = parse(text.toStdString(), kind_, units_);
    const auto* v = std::get_if<double>(&read);
    const bool plain = text.contains(QRegularExpression(QStringLiteral("^[0-9.,\\s-]*$")));
    hint(v && !plain ? QStringLiteral("= %1").arg(QString::fromStdString(format({*v, kind_}, units_))) : QString(),
         theme::colours().pencil);
}

void MeasureField::wrong(const QString& sentence) {
    bad_ = true;
    line_->setProperty("wrong", true);
    line_->style()->polish(line_);
    hint(sentence, theme::colours().madder);
}

void MeasureField::commit() {
    if (!line_->isModified()) return;
    const QString text = line_->text();
    std::optional<double> value;
    if (!text.trimmed().isEmpty() || !may_be_empty_) {
        const auto read = parse(text.toStdString(), kind_, units_);
        if (const auto* e = std::get_if<ParseError>(&read)) return wrong(QString::fromStdString(e->sentence()));
        value = std::get<double>(read);
        if (*value < low_ || *value > high_)
            return wrong(
                tr("From %1 to %2 is taken here.")
                    .arg(QString::fromStdString(format({low_, kind_}, units_)), QString::fromStdString(format({high_, kind_}, units_))));
    }
    bad_ = false;
    line_->setProperty("wrong", false);
    line_->style()->polish(line_);
    hint({}, theme::colours().pencil);
    line_->setModified(false);
    line_->setText(value ? QString::fromStdString(edit_text({*value, kind_}, units_)) : QString());
    value_ = value;
    Q_EMIT committed(value);
}

}  // namespace yb
