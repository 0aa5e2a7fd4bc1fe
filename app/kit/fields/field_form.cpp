#include "app/kit/fields/field_form.h"

#include <QComboBox>
#include <QGridLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>

#include <cmath>

#include "app/ground/theme/theme.h"
#include "app/kit/fields/measure_field.h"

namespace yb {

FieldForm::FieldForm(Session& session, const std::vector<TextField>& texts, const std::vector<PickField>& picks,
                     const std::vector<Field>& fields, QWidget* parent)
    : QWidget(parent) {
    auto* grid = new QGridLayout(this);
    grid->setContentsMargins(0, 0, 0, 0);
    grid->setHorizontalSpacing(8);
    grid->setVerticalSpacing(3);
    grid->setColumnStretch(0, 3);
    grid->setColumnStretch(1, 3);
    int row = 0;
    const auto add = [&](const QString& text, QWidget* buddy) {
        auto* l = new QLabel(text);
        l->setFont(theme::text(10));
        l->setWordWrap(true);
        l->setBuddy(buddy);
        buddy->setAccessibleName(text);
        grid->addWidget(l, row, 0);
        grid->addWidget(buddy, row++, 1);
    };
    for (const TextField& t : texts) {
        auto* line = new QLineEdit;
        line->setObjectName(t.name);
        line->setProperty("measure", true);
        add(t.label, line);
        connect(line, &QLineEdit::editingFinished, this, [&session, line, t] {
            if (line->isModified()) t.set(session, line->text());
            line->setModified(false);
        });
        updates_.emplace_back([&session, line, t] {
            if (line->isModified() || line->text() == t.get(session)) return;
            line->setText(t.get(session));
            line->setCursorPosition(0);  // a long name shows its beginning
        });
    }
    for (const PickField& f : picks) {
        auto* combo = new QComboBox;
        combo->setObjectName(f.name);
        combo->addItems(f.options);
        combo->setMinimumContentsLength(8);
        combo->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
        combo->setFocusPolicy(Qt::StrongFocus);
        add(f.label, combo);
        connect(combo, &QComboBox::activated, this, [&session, f](int i) { f.set(session, i); });
        updates_.emplace_back([&session, combo, f] { combo->setCurrentIndex(f.get(session)); });
    }
    for (const Field& f : fields) {
        auto* field = new MeasureField(f.name, f.kind);
        field->set_range(f.low, f.high);
        field->allow_empty(f.may_be_empty);
        field->line()->setAccessibleName(f.label);
        add(f.label, field);
        connect(field, &MeasureField::committed, this, [&session, f](std::optional<double> v) { f.set(session, v); });
        if (!f.starts) {
            updates_.emplace_back([&session, field, f] { field->show_value(f.get(session), session.units()); });
            continue;
        }
        auto* back = new QPushButton;
        back->setObjectName(f.name + "_back");
        back->setProperty("plain", true);
        back->setFont(theme::text(9));
        back->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
        grid->addWidget(back, row - 1, 2);
        grid->setColumnStretch(2, 2);
        connect(back, &QPushButton::clicked, this, [&session, f] { f.set(session, f.starts()); });
        updates_.emplace_back([&session, field, back, f] {
            const auto now = f.get(session);
            field->show_value(now, session.units());
            const auto start = f.starts();
            const bool other = now.has_value() != start.has_value() || (now && std::abs(*now - *start) > 1e-9);
            const QString told = start ? in_units({*start, f.kind}, session) : tr("nothing");
            back->setText(other ? tr("· was %1").arg(told) : QString());
            back->setToolTip(other ? tr("Changed from the starting value: a press gives %1 back").arg(told) : QString());
            back->setAccessibleName(other ? back->toolTip() : QString());
            back->setEnabled(other);
        });
    }
    show_values();
}

FieldForm::~FieldForm() {
    for (QLineEdit* line : findChildren<QLineEdit*>()) line->disconnect(this);  // see ~MeasureField
}

void FieldForm::show_values() {
    for (const auto& update : updates_) update();
}

}  // namespace yb
