#include "app/pages/guide/guide_page.h"

#include <map>

#include <QFile>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QRegularExpression>
#include <QScrollBar>
#include <QTextBlock>
#include <QTextBrowser>
#include <QVBoxLayout>

#include "app/ground/theme/theme.h"

namespace yb {

namespace {

/// In the order they are read.
constexpr std::array page_names{"README.md", "leaves.md", "flat.md",  "pour.md",     "join.md",    "under.md", "skin.md",
                                "days.md",   "book.md",   "money.md", "mistakes.md", "trouble.md", "others.md"};

/// Marks of Markdown that nobody reads.
QString plain(QString text) {
    static const QRegularExpression link(QStringLiteral("\\[([^]]*)\\]\\([^)]*\\)"));
    static const QRegularExpression marks(QStringLiteral("[*_`|]+"));
    return text.replace(link, QStringLiteral("\\1")).replace(marks, QStringLiteral(" ")).simplified();
}

/// Where each topic stands: the page and words its paragraph begins with.
const std::map<QString, std::pair<QString, QString>>& topics() {
    static const std::map<QString, std::pair<QString, QString>> all{
        {"rack", {"README.md", "Rack"}},
        {"lay", {"README.md", "Lay"}},
        {"flat", {"flat.md", ""}},
        {"fill", {"README.md", "Fill"}},
        {"pour", {"pour.md", ""}},
        {"join", {"join.md", ""}},
        {"under", {"under.md", ""}},
        {"skin", {"skin.md", ""}},
        {"sheets", {"README.md", "Sheets"}},
        {"find", {"leaves.md", "What could be made"}},
        {"log", {"leaves.md", "The log"}},
        {"shop", {"README.md", "The shop"}},
        {"jobs", {"README.md", "Jobs"}},
        {"trouble", {"trouble.md", ""}},
        {"grow", {"README.md", "Slabs in"}},
        {"photo", {"README.md", "Slabs in"}},
        {"start", {"README.md", "First start"}},
        {"days", {"days.md", ""}},
        {"book", {"book.md", ""}},
        {"money", {"money.md", ""}},
    };
    return all;
}

}  // namespace

GuidePage::GuidePage(QWidget* parent) : QWidget(parent), words_(new QLineEdit), list_(new QListWidget), paper_(new QTextBrowser) {
    setObjectName("guide_page");
    for (const char* name : page_names) {
        QFile f(QStringLiteral(":/guide/%1").arg(name));
        if (!f.open(QIODevice::ReadOnly)) continue;
        const QString text = QString::fromUtf8(f.readAll());
        pages_.push_back({name, plain(text.section('\n', 0, 0)).remove('#').trimmed(), text});
    }
    auto* all = new QHBoxLayout(this);
    all->setContentsMargins(36, 20, 36, 16);
    all->setSpacing(24);
    auto* side = new QVBoxLayout;
    auto* title = new QLabel(tr("The guide"));
    title->setFont(theme::figures(20));
    side->addWidget(title);
    words_->setObjectName("guide_words");
    words_->setAccessibleName(tr("Words to look for"));
    words_->setPlaceholderText(tr("look for…"));
    side->addWidget(words_);
    list_->setObjectName("guide_list");
    list_->setAccessibleName(tr("Pages, or where the words stand"));
    list_->setFrameShape(QFrame::NoFrame);
    list_->setWordWrap(true);
    side->addWidget(list_, 1);
    auto* leave = new QPushButton(tr("Back to the bench"));
    leave->setObjectName("guide_back");
    leave->setProperty("next", true);
    connect(leave, &QPushButton::clicked, this, &GuidePage::back);
    side->addWidget(leave);
    auto* panel = new QWidget;
    panel->setLayout(side);
    panel->setFixedWidth(theme::grown(290));
    all->addWidget(panel);
    paper_->setObjectName("guide_paper");
    paper_->setFrameShape(QFrame::NoFrame);
    paper_->setOpenLinks(false);
    paper_->setFont(theme::text(11.5));
    paper_->document()->setDefaultFont(theme::text(11.5));
    all->addWidget(paper_, 1);
    connect(words_, &QLineEdit::textChanged, this, &GuidePage::find_now);
    connect(words_, &QLineEdit::returnPressed, this, [this] {
        if (list_->count() > 0) list_->setCurrentRow((list_->currentRow() + 1) % list_->count());
    });
    connect(list_, &QListWidget::currentItemChanged, this, [this](QListWidgetItem* item) {
        if (item) show_page(item->data(Qt::UserRole).toString(), item->data(Qt::UserRole + 1).toString());
    });
    connect(paper_, &QTextBrowser::anchorClicked, this, [this](const QUrl& to) {
        // Pages name one another; what lies outside is not opened from here.
        if (to.isRelative() && to.path().endsWith(".md")) show_page(to.path());
    });
    list_pages();
}

void GuidePage::list_pages() {
    const QSignalBlocker quiet(list_);
    list_->clear();
    for (const Page& p : pages_) {
        auto* item = new QListWidgetItem(p.title);
        item->setData(Qt::UserRole, p.name);
        list_->addItem(item);
    }
}

void GuidePage::show_page(const QString& name, const QString& at) {
    for (const Page& p : pages_) {
        if (p.name != name) continue;
        if (shown_ != name) paper_->setMarkdown(p.text);
        shown_ = name;
    }
    if (at.isEmpty()) return paper_->verticalScrollBar()->setValue(0);
    // The paragraph that begins so, otherwise the first that has it.
    const QTextDocument* doc = paper_->document();
    QTextBlock found;
    for (QTextBlock b = doc->begin(); b.isValid() && !found.isValid(); b = b.next())
        if (b.text().simplified().startsWith(at, Qt::CaseInsensitive)) found = b;
    QTextCursor cursor = found.isValid() ? QTextCursor(found) : doc->find(at);
    if (cursor.isNull()) return;
    if (found.isValid())
        cursor.setPosition(found.position() + static_cast<int>(std::min<qsizetype>(at.size(), found.text().size())),
                           QTextCursor::KeepAnchor);
    paper_->setTextCursor(cursor);
    const QRect place = paper_->cursorRect(cursor);
    paper_->verticalScrollBar()->setValue(paper_->verticalScrollBar()->value() + place.top() - theme::grown(30));
}

void GuidePage::open_at(const QString& topic) {
    words_->clear();
    list_pages();
    const auto it = topics().find(topic);
    if (it != topics().end()) show_page(it->second.first, it->second.second);
    else if (const auto hits = search(topic); !topic.isEmpty() && !hits.empty()) show_page(hits.front().page, hits.front().text.left(40));
    else show_page(QStringLiteral("README.md"));
    words_->setFocus();
}

std::vector<GuidePage::Hit> GuidePage::search(const QString& words) const {
    const QStringList all = words.simplified().split(' ', Qt::SkipEmptyParts);
    std::vector<Hit> out;
    if (all.isEmpty()) return out;
    for (const Page& p : pages_) {
        // A row of a table is a place of its own, as a paragraph is.
        static const QRegularExpression between(QStringLiteral("\n\\s*\n|\n(?=\\|)|\n(?=- )"));
        for (const QString& paragraph : p.text.split(between)) {
            const QString text = plain(paragraph).remove(QRegularExpression(QStringLiteral("^[#\\-\\s]+")));
            if (text.isEmpty()) continue;
            if (std::all_of(all.begin(), all.end(), [&](const QString& w) { return text.contains(w, Qt::CaseInsensitive); }))
                out.push_back({p.name, text});
        }
    }
    return out;
}

void GuidePage::find_now() {
    if (words_->text().trimmed().isEmpty()) return list_pages();
    const auto hits = search(words_->text());
    {
        const QSignalBlocker quiet(list_);
        list_->clear();
        for (const Hit& h : hits) {
            QString title;
            for (const Page& p : pages_)
                if (p.name == h.page) title = p.title;
            auto* item = new QListWidgetItem(title + ": " + h.text.left(70) + (h.text.size() > 70 ? QStringLiteral("…") : QString()));
            item->setData(Qt::UserRole, h.page);
            item->setData(Qt::UserRole + 1, h.text.left(24));
            list_->addItem(item);
        }
        if (hits.empty()) {
            auto* none = new QListWidgetItem(tr("Nothing here has all of these words."));
            none->setFlags(Qt::NoItemFlags);
            list_->addItem(none);
        }
    }
    if (!hits.empty()) list_->setCurrentRow(0);
}

void GuidePage::keyPressEvent(QKeyEvent* e) {
    if (e->key() == Qt::Key_Escape) return Q_EMIT back();
    QWidget::keyPressEvent(e);
}

}  // namespace yb
