#include "app/kit/fields/measure_field.h"

#include <QStyle>
#include <QVBoxLayout>

#include "app/ground/theme/theme.h"

namespace yb {

MeasureField::MeasureField(const QString& name, Kind kind, QWidget* parent)
    : QWidget(parent), kind_(kind), line_(new QLineEdit(this)), hint_(new QLabel(this)) {
    line_->setObjectName(name);
    line_->setProperty("measure", true);
    line_->setAlignment(Qt::AlignRight);
    line_->setFont(theme::figures(10));
    hint_->setObjectName(name + QStringLiteral("_hint"));
    hint_->setWordWrap(true);
    hint_->setFont(theme::text(8.5));
    QPalette p = hint_->palette();
    p.setColor(QPalette::WindowText, theme::colours().madder);
    hint_->setPalette(p);
    hint_->hide();
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
    if (bad_ || (line_->hasFocus() && line_->isModified()) || (same && !line_->text().isEmpty())) return;
    line_->setText(value ? QString::fromStdString(edit_text({*value, kind_}, units)) : QString());
    line_->setModified(false);
}

void MeasureField::wrong(const QString& sentence) {
    bad_ = true;
    line_->setProperty("wrong", true);
    line_->style()->polish(line_);
    hint_->setText(sentence);
    hint_->show();
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
    hint_->hide();
    line_->setModified(false);
    line_->setText(value ? QString::fromStdString(edit_text({*value, kind_}, units_)) : QString());
    value_ = value;
    Q_EMIT committed(value);
}

}  // namespace yb
