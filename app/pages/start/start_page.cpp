#include "app/pages/start/start_page.h"

#include <algorithm>

#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QPainter>
#include <QPushButton>
#include <QRegularExpression>
#include <QSettings>
#include <QStandardPaths>
#include <QVBoxLayout>

#include "app/ground/session/whole_file.h"
#include "app/ground/slow/runner.h"
#include "app/ground/theme/theme.h"
#include "app/kit/bench/wood_face.h"
#include "app/kit/fields/lines_edit.h"
#include "app/pages/start/start_card.h"
#include "core/files/store/check.h"
#include "core/shop/edit/first_top.h"
#include "core/steps/lay/lay.h"
#include "demo/demo.h"

namespace yb {

template <class F>
QPushButton* StartPage::offer(const QString& name, const QString& words, F run, bool strong) {
    auto* b = new QPushButton(words);
    b->setObjectName(name);
    b->setProperty(strong ? "next" : "quiet", true);
    b->setFixedWidth(theme::grown(420));
    b->setMinimumHeight(38);
    connect(b, &QPushButton::clicked, this, run);
    box_->addWidget(b);
    return b;
}

void StartPage::begin(const QString& title, const QString& text) {
    box_ = new QVBoxLayout(this);
    box_->setContentsMargins(120, 90, 120, 60);
    box_->setSpacing(12);
    auto* head = new QLabel(title);
    head->setFont(theme::figures(26, true));
    box_->addWidget(head);
    auto* body = new QLabel(text);
    body->setObjectName("start_text");
    body->setWordWrap(true);
    body->setFont(theme::text(12));
    box_->addWidget(body);
    told_ = new QLabel;
    told_->setObjectName("start_told");
    told_->setWordWrap(true);
    told_->setFont(theme::text(12));
    told_->setStyleSheet(QStringLiteral("color: %1").arg(theme::colours().madder.name()));
    told_->hide();
    box_->addWidget(told_);
    box_->addSpacing(20);
}

void StartPage::tell(const QString& text) {
    told_->setText(text);
    told_->setVisible(!text.isEmpty());
}

void StartPage::offer_shops() {
    offer("start_demo", tr("The demo shop: a small workshop by a tarn"), &StartPage::demo);
    offer("start_empty", tr("A new shop, or one last used"), &StartPage::plain);
    offer("start_open", tr("A shop you already have"), &StartPage::own_shop);
}

namespace {

/// Places on a rack where nothing stands yet.
void draw_empty_rack(QPainter& p, const QRectF& box) {
    const auto& c = theme::colours();
    const double floor = box.bottom() - 26;
    p.setPen(QPen(c.pencil, 1.2, Qt::DashLine));
    p.setBrush(Qt::NoBrush);
    const double high[] = {0.78, 0.72, 0.66, 0.78, 0.7};
    const double step = box.width() * 0.8 / 5;
    for (int i = 0; i < 5; ++i) {
        const double h = high[i] * (box.height() - 50);
        p.drawRect(QRectF(box.left() + box.width() * 0.1 + step * i + step * 0.2, floor - h, step * 0.6, h));
    }
    p.setPen(QPen(c.ink, 2));
    p.drawLine(QPointF(box.left() + box.width() * 0.06, floor), QPointF(box.right() - box.width() * 0.06, floor));
}

/// A log sawn through and through: each board as wide as the round is there, its rings as the saw meets them.
void draw_log(QPainter& p, const QRectF& box) {
    const auto& c = theme::colours();
    constexpr int boards = 5;
    const double r = box.height() * 0.47;
    const double gap = 5;
    const double thick = 2 * r * 0.92 / boards;
    for (int k = 0; k < boards; ++k) {
        const double low = -r * 0.92 + k * thick;
        const double far = std::max(std::abs(low), std::abs(low + thick));
        const double half = 1.6 * std::sqrt(std::max(0.0, r * r - far * far)) + r * 0.25;
        const QRectF board(box.center().x() - half, box.center().y() + low + gap / 2, 2 * half, thick - gap);
        p.save();
        p.setPen(QPen(c.wood_edge, 1.3));
        p.setBrush(c.wood);
        p.drawRect(board);
        p.setClipRect(board);
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(c.brass, 0.8));
        for (double ring = 14; ring < 2 * r; ring += 13) p.drawEllipse(box.center(), ring * 1.6, ring);
        p.restore();
    }
}

/// A slab with a top laid on it, drawn as the bench draws one.
void draw_demo(QPainter& p, const QRectF& box) {
    static const auto slab = [] {
        SlabRecipe r;
        r.id = "start", r.species = "sycamore, American", r.length_mm = 2400, r.width_mm = 760;
        return make_slab(r);
    }();
    static const SlabShape shape = shape_of(slab);
    const BenchMap map = map_of(bounds(shape.ring_a), box, 40);
    static QImage face;
    if (face.size() != box.size().toSize()) face = draw_face(slab, shape, map);
    p.drawImage(box.topLeft(), face);
    static const FirstTop first = first_top(slab);
    p.setPen(QPen(theme::colours().chalk, 1.8));
    p.setBrush(Qt::NoBrush);
    p.drawPolygon(map.px(first.placement.frame().to_slab(outline_of({first.top.length_mm - 240, first.top.width_mm - 40}))));
}

QPushButton* link(const QString& name, const QString& words) {
    auto* b = new QPushButton(words);
    b->setObjectName(name);
    b->setProperty("plain", true);
    b->setFlat(true);
    b->setCursor(Qt::PointingHandCursor);
    return b;
}

}  // namespace

QString StartPage::place_for(const QString& name) {
    // What no file can be called becomes a dash; a name of hundreds of letters is cut.
    QString stem = name.trimmed().left(60);
    stem.replace(QRegularExpression(R"([^\w\- ])", QRegularExpression::UseUnicodePropertiesOption), "-");
    stem = stem.simplified().replace(' ', '-').toLower();
    while (stem.startsWith('-') || stem.startsWith('.')) stem.remove(0, 1);
    if (stem.isEmpty()) stem = "shop";
    QString folder = QStandardPaths::writableLocation(QStandardPaths::DocumentsLocation);
    if (folder.isEmpty() || !QFileInfo(folder).isWritable()) folder = QDir::homePath();
    return free_shop_name(folder + "/" + stem);
}

void StartPage::name_it() {
    const QString name = name_->text().trimmed();
    if (name.isEmpty()) {
        tell(tr("Give the shop a name: any will do, and it can be changed."));
        return name_->setFocus();
    }
    Q_EMIT own(name, place_for(name));
}

void StartPage::pictures() {
    auto* row = new QHBoxLayout;
    row->setSpacing(28);
    auto* own_card =
        new StartCard("start_own", tr("Your own shop"), tr("Name it, and the first slab can be taped in a minute."), draw_empty_rack);
    own_card->set_next(true);
    auto* typed = new QHBoxLayout;
    name_ = new QLineEdit(tr("My workshop"));
    name_->setObjectName("start_name");
    name_->setAccessibleName(tr("What your shop is called"));
    name_->setMaxLength(300);
    name_->setMinimumHeight(theme::grown(28));
    auto* open_it = new QPushButton(tr("Open it"));
    open_it->setObjectName("start_open_own");
    open_it->setProperty("next", true);
    open_it->setMinimumHeight(theme::grown(28));
    typed->addWidget(name_, 1);
    typed->addWidget(open_it);
    own_card->below()->addLayout(typed);
    place_ = new QLabel;
    place_->setObjectName("start_place");
    place_->setFont(theme::text(9));
    place_->setStyleSheet(QStringLiteral("color: %1").arg(theme::colours().pencil.name()));
    own_card->below()->addWidget(place_);
    const auto where = [this] {
        const QString path = QDir::toNativeSeparators(place_for(name_->text()));
        place_->setToolTip(path);
        place_->setText(tr("kept in %1").arg(place_->fontMetrics().elidedText(path, Qt::ElideMiddle, 250)));
        tell({});
    };
    where();
    connect(name_, &QLineEdit::textChanged, this, where);
    connect(name_, &QLineEdit::returnPressed, this, &StartPage::name_it);
    connect(open_it, &QPushButton::clicked, this, &StartPage::name_it);
    connect(own_card, &QAbstractButton::clicked, this, [this] {
        name_->setFocus();
        name_->selectAll();
    });
    auto* log =
        new StartCard("start_practise", tr("A log to practise on"), tr("Turn it, saw it, open it; nothing of it is counted."), draw_log);
    connect(log, &QAbstractButton::clicked, this, &StartPage::practise);
    auto* demo_card = new StartCard("start_demo", tr("The demo: a workshop by a tarn"),
                                    tr("Ten tables from rack to base, to look around in."), draw_demo);
    connect(demo_card, &QAbstractButton::clicked, this, &StartPage::demo);
    for (StartCard* card : {own_card, log, demo_card}) row->addWidget(card, 1);
    box_->addLayout(row);
}

void StartPage::last_used() {
    QStringList recent = QSettings().value("recent").toStringList();
    if (recent.isEmpty()) return;
    box_->addSpacing(14);
    auto* head = new QLabel(tr("Last on the bench"));
    head->setFont(theme::text(10.5));
    head->setStyleSheet(QStringLiteral("color: %1").arg(theme::colours().pencil.name()));
    box_->addWidget(head);
    auto* row = new QHBoxLayout;
    row->setSpacing(28);
    constexpr int most = 3;
    for (int i = 0; i < std::min<int>(most, static_cast<int>(recent.size())); ++i) {
        auto* card = new RecentCard(QString("start_recent_%1").arg(i + 1), recent[i]);
        connect(card, &QAbstractButton::clicked, this, [this, card] {
            if (card->gone()) Q_EMIT own_shop();
            else Q_EMIT open(card->path());
        });
        row->addWidget(card, 1);
    }
    for (int i = static_cast<int>(recent.size()); i < most; ++i) row->addStretch(1);
    box_->addLayout(row);
    if (recent.size() <= most) return;
    QPushButton* more = link("start_more", tr("%1 more shops…").arg(recent.size() - most));
    connect(more, &QPushButton::clicked, this, [this, more, others = recent.mid(most)] {
        auto* menu = new QMenu(this);
        menu->setAttribute(Qt::WA_DeleteOnClose);
        menu->setObjectName("start_more_menu");
        for (const QString& path : others) {
            QAction* one =
                menu->addAction(QFileInfo(path).completeBaseName() + (QFile::exists(path) ? QString() : tr(" – not where it was")));
            one->setToolTip(path);
            one->setEnabled(QFile::exists(path));
            connect(one, &QAction::triggered, this, [this, path] { Q_EMIT open(path); });
        }
        menu->popup(more->mapToGlobal(QPoint(0, more->height())));
    });
    box_->addWidget(more, 0, Qt::AlignLeft);
}

StartPage::StartPage(const QString& why, const QString& path, StoreError::Kind what, QWidget* parent) : QWidget(parent) {
    const bool plain = why.isEmpty();
    begin(plain ? tr("What is on the bench?") : tr("That shop could not be opened"),
          plain ? tr("A shop – its slabs, its jobs – is one file of yours. Everything is kept as you type it.") : why);
    if (what == StoreError::Kind::stray_journal)
        offer(
            "journal_aside", tr("Set the journal aside and open the shop"), [this, path] { Q_EMIT journal_aside(path); }, true);
    if (what == StoreError::Kind::damaged) {
        offer_backup(path, true);
        offer("open_repair", tr("Put everything that is whole into a new file"), [this, path] { Q_EMIT repair_it(path); });
    }
    if (plain) {
        pictures();
        last_used();
        auto* links = new QHBoxLayout;
        QPushButton* elsewhere = link("start_open", tr("A shop you have elsewhere…"));
        connect(elsewhere, &QPushButton::clicked, this, &StartPage::own_shop);
        links->addWidget(elsewhere);
        links->addStretch(1);
        box_->addSpacing(8);
        box_->addLayout(links);
        box_->setContentsMargins(64, 36, 64, 30);
        setFocusProxy(name_);
        name_->selectAll();
    } else {
        offer_shops();
    }
    box_->addStretch(1);
}

StartPage::StartPage(const Repair& repair, const QString& path, const QString& made, QWidget* parent) : QWidget(parent) {
    const QString kept = tr("%1 revisions, %2 pictures and scans and %3 entries of the book are whole and are in %4. The damaged file "
                            "was left as it is.")
                             .arg(repair.revisions)
                             .arg(repair.attachments)
                             .arg(repair.entries)
                             .arg(made);
    begin(tr("What is whole is in a new file"),
          repair.whole() ? kept + " " + tr("Nothing is missing.") : kept + " " + tr("This is not whole:"));
    if (!repair.whole()) {
        auto* list = new LinesEdit;
        list->setObjectName("repair_lost");
        list->setReadOnly(true);
        list->setFont(theme::text(11));
        list->setMaximumHeight(theme::grown(40 + 20 * static_cast<int>(std::min<std::size_t>(repair.lost.size(), 9))));
        for (const std::string& l : repair.lost) list->appendPlainText(QString::fromStdString(l));
        box_->addWidget(list);
    }
    offer(
        "open_repaired", tr("Open it"), [this, made] { Q_EMIT open(made); }, true);
    offer_backup(path, false);
    offer_shops();
    box_->addStretch(1);
}

void StartPage::offer_backup(const QString& path, bool strong) {
    QPushButton* b = offer(
        "open_backup", tr("Looking for a backup that is whole…"), [this, path] { open_backup(backup_, path); }, strong);
    b->setEnabled(false);
    // Every backup is looked through until one is whole: in a large shop that takes its time.
    run_beside(
        this,
        [this, b, path](const Work&) -> std::function<void()> {
            return [this, b, found = newest_backup(path.toStdString())] {
                if (!found) return b->setText(tr("There is no backup that is whole"));
                backup_ = QString::fromStdString(*found);
                b->setText(tr("Open the backup of %1, as a copy").arg(QFileInfo(backup_).completeBaseName()));
                b->setEnabled(true);
            };
        },
        [this](const QString& sentence) { tell(sentence); });
}

void StartPage::open_backup(const QString& backup, const QString& path) {
    // The damaged file stays as it is, and so does the backup.
    const QString copy = free_shop_name(path + ".from-" + QFileInfo(backup).completeBaseName());
    if (QFile::copy(backup, copy)) Q_EMIT open(copy);
    else tell(tr("%1 can't be copied here.").arg(backup));
}

}  // namespace yb
