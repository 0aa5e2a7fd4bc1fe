// Every text of the interface can be said in another language.
#include <QAbstractButton>
#include <QComboBox>
#include <QMenu>
#include <QMenuBar>
#include <QRegularExpression>

#include "app/ground/words.h"
#include "app/pages/days/days_page.h"
#include "app/pages/start/start_card.h"
#include "core/ground/measure/words.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "tests/app/desk.h"

using namespace yb;

namespace {

struct Spoken {
    explicit Spoken(Speaker s) {
        speak_language("none");
        speak(std::move(s));
    }
    ~Spoken() { speak_language("none"); }
};

/// What is left of a text when all that was said by the speaker, all names and all figures are taken out.
QString unsaid(QString text, const QStringList& names) {
    static const QRegularExpression said("⟦[^⟦⟧]*⟧");
    static const QRegularExpression tags("<[^>]*>");
    static const QRegularExpression cut("⟦[^⟦⟧]*…");  // on a narrow mark of the stick
    text.replace(tags, " ").replace(cut, " ");
    for (QString before; before != text;) {
        before = text;
        text.replace(said, " ");
    }
    for (const QString& n : names) text.replace(n, " ");
    return text.simplified();
}

void look(const QWidget& window, const QStringList& names, const QString& where, QStringList& missed) {
    static const QRegularExpression word("[a-zA-Z]{4,}");
    const auto check = [&](const QString& text, const QObject* of) {
        const QString left = unsaid(text, names);
        if (word.match(left).hasMatch()) missed << where + " " + of->objectName() + ": " + left;
    };
    for (const QWidget* w : window.findChildren<QWidget*>()) {
        if (const auto* l = qobject_cast<const QLabel*>(w)) check(l->text(), w);
        if (const auto* b = qobject_cast<const QAbstractButton*>(w)) check(b->text(), w);
        if (const auto* c = qobject_cast<const QComboBox*>(w))
            for (int i = 0; i < c->count(); ++i) check(c->itemText(i), w);
        check(w->toolTip(), w);
    }
    for (const QAction* a : window.findChildren<QAction*>()) check(QString(a->text()).remove('&'), a);
}

}  // namespace

TEST_CASE("no text of any screen of any demo job is one that only English has", "[app][words]") {
    Spoken spoken([](const std::string& english) { return "⟦" + english + "⟧"; });
    Desk desk;
    // Shops that other tests left behind, or open beside: their paths are no words.
    const auto no_recent = [&] { qDeleteAll(desk.window->findChildren<RecentCard*>()); };
    no_recent();
    desk.window->finish_growing();
    QStringList names;
    const Documents docs = desk.session().documents();
    for (const auto& [id, j] : docs.jobs) names << QString::fromStdString(j.name) << QString::fromStdString(j.client);
    for (const auto& [id, s] : docs.slabs)
        for (const auto& n : {s.name, s.tree, s.notes}) names << QString::fromStdString(n);
    for (const Resin& r : docs.shop.resins) names << QString::fromStdString(r.label);
    names << QString::fromStdString(docs.shop.name) << "slab"
          << "a.shop" << desk.dir.path() << desk.find<QLabel>("start_place")->toolTip();
    names.removeAll(QString());
    std::sort(names.begin(), names.end(), [](const QString& a, const QString& b) { return a.size() > b.size(); });
    QStringList missed;
    for (const auto& [id, j] : docs.jobs) {
        desk.session().set_job(QString::fromStdString(id));
        for (const StepRow& row : steps()) {
            desk.session().set_step(row.step);
            QApplication::processEvents();
            look(*desk.window, names, QString::fromStdString(id) + " " + row.name, missed);
        }
    }
    Q_EMIT desk.session().shop_wanted("resins");
    look(*desk.window, names, "shop", missed);
    desk.window->show_grow();
    look(*desk.window, names, "grow", missed);
    desk.window->show_log();
    look(*desk.window, names, "log", missed);
    desk.window->show_days();
    desk.find<DaysPage>("days_page")->wait();
    look(*desk.window, names, "days", missed);
    desk.window->show_start();
    no_recent();
    look(*desk.window, names, "start", missed);
    missed.removeDuplicates();
    INFO(missed.join("\n").toStdString());
    CHECK(missed.isEmpty());
}

TEST_CASE("the American catalogue is spoken where it is chosen", "[app][words]") {
    speak_language("en_US");
    {
        Desk desk;
        Q_EMIT desk.session().shop_wanted("resins");
        QStringList texts;
        for (const QLabel* l : desk.window->findChildren<QLabel*>()) texts << l->text();
        CHECK(texts.contains("Price of a liter"));
        CHECK_FALSE(texts.contains("Price of a litre"));
        desk.session().set_job("job-tarn-river");
        desk.session().set_step(step_key::lay);
        CHECK(desk.find<QRadioButton>("choice_makeup.colours_one")->text() == "One color");
    }
    speak_language("en_GB");
    Desk desk;
    desk.session().set_job("job-tarn-river");
    desk.session().set_step(step_key::lay);
    CHECK(desk.find<QRadioButton>("choice_makeup.colours_one")->text() == "One colour");
}
