#include "app/ground/instruments.h"

#include <QApplication>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>

#include "app/ground/session/session.h"
#include "app/ground/theme/theme.h"
#include "app/ground/words.h"
#include "core/material/wood/wood.h"

namespace yb {

namespace {
constexpr int readable_ms = 200;  ///< nobody reads more than five a second
}

Instruments::Instruments(Session& session, QWidget* over)
    : QFrame(over),
      session_(session),
      figure_(new QLabel),
      about_(new QLabel),
      keep_(new QPushButton(tr("Take it"))),
      refuse_(new QPushButton(tr("Refuse it"))) {
    setObjectName("instruments");
    setAutoFillBackground(true);
    setStyleSheet(QStringLiteral("#instruments { background: %1; border: 2px solid %2; }")
                      .arg(theme::colours().slip.name(), theme::colours().brass.name()));
    auto* box = new QVBoxLayout(this);
    figure_->setObjectName("reading_figure");
    figure_->setFont(theme::figures(34));
    figure_->setAlignment(Qt::AlignCenter);
    about_->setObjectName("reading_about");
    about_->setFont(theme::text(10.5));
    about_->setWordWrap(true);
    about_->setAlignment(Qt::AlignCenter);
    box->addWidget(figure_);
    box->addWidget(about_);
    auto* row = new QHBoxLayout;
    keep_->setObjectName("reading_keep");
    refuse_->setObjectName("reading_refuse");
    // The cursor stays where it is: pressing them takes no focus.
    for (QPushButton* b : {keep_, refuse_}) b->setFocusPolicy(Qt::NoFocus), row->addWidget(b);
    box->addLayout(row);
    connect(keep_, &QPushButton::clicked, this, &Instruments::keep);
    connect(refuse_, &QPushButton::clicked, this, &Instruments::refuse);
    soon_.setSingleShot(true);
    connect(&soon_, &QTimer::timeout, this, &Instruments::show_last);
    over->installEventFilter(this);
    hide();
}

bool Instruments::eventFilter(QObject* watched, QEvent* e) {
    if (watched == parent() && e->type() == QEvent::Resize) place();
    return QFrame::eventFilter(watched, e);
}

void Instruments::place() {
    adjustSize();
    resize(std::max(width(), theme::grown(260)), height());
    if (auto* over = parentWidget()) move(theme::grown(24), over->height() - height() - theme::grown(24));
}

int Instruments::listening() const {
    return static_cast<int>(std::count_if(probes_.begin(), probes_.end(), [](const Probe* p) { return p->listening(); }));
}

QString Instruments::listen(const QString& line) {
    auto* probe = new Probe(this);
    if (const QString wrong = probe->listen(line); !wrong.isEmpty()) {
        delete probe;
        return wrong;
    }
    probes_.push_back(probe);
    connect(probe, &Probe::said, this, &Instruments::said);
    connect(probe, &Probe::reading, this,
            [this, probe](double mm) { arrived(probe, QStringLiteral("length"), fine(mm), QStringLiteral("mm")); });
    connect(probe, &Probe::temperature, this,
            [this, probe](double c) { arrived(probe, QStringLiteral("temperature"), celsius(c), QStringLiteral("°C")); });
    connect(probe, &Probe::moisture, this, [this, probe](double pct) {
        // The meter is made for wood of some twenty degrees: the shop's air stands for the wood's.
        const double c = session_.plan() ? session_.plan()->shop_air.temp_c : 20;
        const Slab* slab = session_.slab();
        const MeterWood wood = meter_wood(session_.shop().meter, slab ? slab->species : std::string());
        arrived(probe, QStringLiteral("moisture"), percent(std::round(meter_moisture(pct, c, wood.slope, wood.offset) * 10) / 10),
                QStringLiteral("%"));
    });
    connect(probe, &Probe::humidity, this,
            [this, probe](double pct) { arrived(probe, QStringLiteral("humidity"), percent(pct), QStringLiteral("%")); });
    connect(probe, &Probe::mass, this, [this, probe](double g) {
        Q_EMIT weighed(g);
        arrived(probe, QStringLiteral("mass"), kg(g / 1000), QStringLiteral("kg"));
    });
    return {};
}

void Instruments::let_go_all() {
    for (Probe* p : probes_) p->deleteLater();
    probes_.clear();
    refuse();
}

void Instruments::arrived(Probe* from, const QString& what, Quantity value, const QString& unit) {
    const Reading reading{value, what, unit, from->name()};
    if (shown_at_.isValid() && shown_at_.elapsed() < readable_ms) {
        // The newest is shown a moment later, those between are counted.
        ++passed_over_;
        last_ = reading;
        if (!soon_.isActive()) soon_.start(readable_ms);
        return;
    }
    take(reading);
}

void Instruments::take(const Reading& reading) {
    last_ = reading;
    show_last();
}

void Instruments::show_last() {
    shown_at_.start();
    const QString text = QString::fromStdString(format(last_.value, session_.units()));
    figure_->setText(text);
    // Where the cursor is: what stood there before comes back where it is refused.
    auto* line = qobject_cast<QLineEdit*>(QApplication::focusWidget());
    if (line && (line->isReadOnly() || !window()->isAncestorOf(line))) line = nullptr;
    if (line != line_) {
        line_ = line;
        was_ = line ? line->text() : QString();
    }
    if (line_) {
        line_->setText(text);
        line_->setModified(true);
        Q_EMIT line_->textEdited(text);
    }
    QStringList about{tr("%1 from %2").arg(told(last_.what.toStdString()), last_.from)};
    if (passed_over_ > 0) about << tr("%1 came faster than they can be read").arg(passed_over_);
    if (!line_) about << tr("the cursor is on no line: taken, it goes into the book");
    about_->setText(about.join('\n'));
    setAccessibleName(tr("%1, %2").arg(text, about.join(QStringLiteral(", "))));
    show();
    raise();
    place();
}

void Instruments::keep() {
    if (!isVisible()) return;
    BookEntry e;
    e.kind = book::reading;
    e.step = std::string(session_.step().key);
    e.what = last_.what.toStdString();
    e.value = QString::number(last_.value.value, 'g', 8).toStdString();
    e.unit = last_.unit.toStdString();
    const Thing* thing = session_.picked_thing();
    e.of = (thing ? thing->key + ", from " : std::string("from ")) + last_.from.toStdString();
    if (const QString wrong = session_.write_book(e); !wrong.isEmpty()) return;  // it is said, and the reading stays
    if (line_) {
        QKeyEvent press(QEvent::KeyPress, Qt::Key_Return, Qt::NoModifier), release(QEvent::KeyRelease, Qt::Key_Return, Qt::NoModifier);
        QApplication::sendEvent(line_, &press);
        if (line_) QApplication::sendEvent(line_, &release);
    }
    line_.clear();
    passed_over_ = 0;
    hide();
}

void Instruments::refuse() {
    soon_.stop();
    if (line_) {
        line_->setText(was_);
        Q_EMIT line_->textEdited(was_);
    }
    line_.clear();
    passed_over_ = 0;
    hide();
}

}  // namespace yb
