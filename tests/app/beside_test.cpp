// What comes in beside a shop, by hand: lists and calendars in other letters, a file that is taken away, replaced or goes back to a backup,
// a clipboard that holds nothing.
#include <QClipboard>
#include <QMimeData>
#include <QPlainTextEdit>
#include <QProcess>
#include <QStackedWidget>

#include <sys/stat.h>

#include "app/files/bring.h"
#include "app/ground/instruments.h"
#include "core/files/store/check.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "tests/app/desk.h"

using namespace yb;

namespace {

QString written(Desk& desk, const char* name, const QByteArray& bytes) {
    QFile f(desk.dir.filePath(name));
    REQUIRE(f.open(QIODevice::WriteOnly));
    REQUIRE(f.write(bytes) == bytes.size());
    return f.fileName();
}

template <class F>
bool comes(F what) {
    for (int i = 0; i < 500 && !what(); ++i) QTest::qWait(20);
    return what();
}

/// The rack as it stands in the file.
std::size_t in_file(Desk& desk, const std::string& name) {
    const Store s = Store::open(desk.shop().toStdString());
    return static_cast<std::size_t>(
        std::count_if(s.documents().slabs.begin(), s.documents().slabs.end(), [&](const auto& one) { return one.second.name == name; }));
}

bool seen(Desk& desk, const char* button) { return desk.window->findChild<QPushButton*>(button)->isVisible(); }

/// Edits as a hand would, by the shop's name.
void name_it(Desk& desk, const char* name) {
    desk.session().edit_shop("Name", [&](Shop& s) { s.name = name; });
}

}  // namespace

TEST_CASE("a list in another code page is asked about, read as chosen, and in the file", "[app][beside][hostile]") {
    Desk desk;
    const QString path = written(desk, "yard.csv",
                                 "name,length,width,thickness\nB\xFC"
                                 "ffel,2400,600,50\n");
    desk.once_asked([&] { desk.press(Qt::Key_Return); });  // the likeliest comes first
    desk.window->bring_file(path);
    desk.wait();
    CHECK(in_file(desk,
                  "B\xC3\xBC"
                  "ffel") == 1);
    CHECK_FALSE(desk.session().unsaved());
    // From a Mac: the line that reads right is chosen.
    const QString mac = written(desk, "mac.csv",
                                "name,length,width,thickness\rB\x9F"
                                "ffel from a Mac,2400,600,50\r");
    desk.once_asked([&] {
        auto* lines = QApplication::activeModalWidget()->findChild<QComboBox*>();
        REQUIRE(lines);
        for (int i = 0; i < 8 && !lines->currentText().startsWith("B\u00FCffel"); ++i) desk.press(Qt::Key_Down);
        desk.press(Qt::Key_Return);
    });
    desk.window->bring_file(mac);
    desk.wait();
    CHECK(in_file(desk,
                  "B\xC3\xBC"
                  "ffel from a Mac") == 1);
    // Nobody says: nothing is changed.
    const std::size_t slabs = desk.session().slabs().size();
    desk.once_asked([&] { desk.press(Qt::Key_Escape); });
    desk.window->bring_file(path);
    desk.wait();
    CHECK(desk.session().slabs().size() == slabs);
    // What is edited after it is in the file.
    name_it(desk, "After the list");
    CHECK(Store::open(desk.shop().toStdString()).documents().shop.name == "After the list");
}

TEST_CASE("a calendar with letters of its own, and one that never ends, are brought in beside the work", "[app][beside][hostile][days]") {
    Desk desk;
    const QByteArray year = QByteArray::number(QDate::currentDate().year() + 1);
    const QString path = written(desk, "fete.ics",
                                 "BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nDTSTART;VALUE=DATE:" + year +
                                     "0714\r\nSUMMARY:F\xEA"
                                     "te\r\nEND:VEVENT\r\n"
                                     "BEGIN:VEVENT\r\nDTSTART;VALUE=DATE:20260101\r\nRRULE:FREQ=HOURLY;BYMONTH=2;BYMONTHDAY=30\r\nSUMMARY:"
                                     "never\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n");
    QString said;
    desk.once_asked([&] { desk.press(Qt::Key_Return); });
    bring_days_off(desk.session(), desk.window->long_work(), path, [&](const QString& text, bool) { said = text; });
    desk.wait();
    REQUIRE(desk.session().shop().workday.off.size() == 1);
    CHECK(desk.session().shop().workday.off[0].name ==
          "F\xC3\xAA"
          "te");
    CHECK(said.contains("never"));
    CHECK(Store::open(desk.shop().toStdString()).documents().shop.workday.off.size() == 1);
}

TEST_CASE("text that no file takes is refused whole, and what comes after is kept", "[app][beside]") {
    Desk desk;
    const Documents before = desk.session().documents();
    CHECK_FALSE(desk.session().edit("Spoilt", [](Documents& d) {
        d.slabs.begin()->second.name =
            "B\xFC"
            "ffel";
    }));
    CHECK(desk.session().documents() == before);
    CHECK_FALSE(desk.session().unsaved());
    CHECK(desk.text("status").contains("UTF-8"));
    name_it(desk, "Kept");
    CHECK(Store::open(desk.shop().toStdString()).documents().shop.name == "Kept");
    // A note that was pasted with such bytes in it is written without them.
    BookEntry e;
    e.kind = book::note;
    e.value = std::string(
        "a\0b\xFF"
        "c",
        5);
    CHECK(desk.session().write_book(e).isEmpty());
    CHECK(desk.session().store()->book().back().value ==
          "a b\xEF\xBF\xBD"
          "c");
}

TEST_CASE("a shop's file that is taken away is said at once, nothing is written, put back all is kept", "[app][beside]") {
    Desk desk;
    const QString elsewhere = desk.dir.filePath("elsewhere.shop");
    REQUIRE(QFile::rename(desk.shop(), elsewhere));
    REQUIRE(comes([&] { return desk.session().away(); }));
    CHECK(desk.text("status").contains("taken away"));
    CHECK(seen(desk, "keep_copy"));
    CHECK_FALSE(seen(desk, "take_there"));
    CHECK_FALSE(desk.session().can_undo());
    // On a page that hides the top line it stands above the page.
    auto* above = desk.find<QFrame>("file_trouble");
    CHECK_FALSE(above->isVisible());
    desk.press(Qt::Key_D);
    CHECK(above->isVisible());
    CHECK(desk.find<QLabel>("file_trouble_says")->text().contains("taken away"));
    CHECK(seen(desk, "page_keep_copy"));
    desk.window->findChild<QStackedWidget*>("pages")->setCurrentIndex(0);
    CHECK_FALSE(above->isVisible());
    name_it(desk, "Typed while it was away");
    CHECK(desk.session().unsaved());
    CHECK(seen(desk, "try_again"));
    desk.click("try_again");
    CHECK(desk.session().unsaved());
    CHECK_FALSE(QFile::exists(desk.shop()));
    // A copy has what was typed.
    const QString copy = desk.dir.filePath("copy.shop");
    desk.session().save_copy(copy);
    CHECK(Store::open(copy.toStdString()).documents().shop.name == "Typed while it was away");
    REQUIRE(QFile::rename(elsewhere, desk.shop()));
    REQUIRE(comes([&] { return !desk.session().away() && !desk.session().unsaved(); }));
    CHECK_FALSE(seen(desk, "keep_copy"));
    CHECK(Store::open(desk.shop().toStdString()).documents().shop.name == "Typed while it was away");
    CHECK(check_shop(desk.shop().toStdString()).ok);
}

TEST_CASE("another file in a shop's place is left as it is until the maker takes it", "[app][beside]") {
    for (const bool over : {false, true}) {
        INFO(over);
        Desk desk;
        const std::string path = desk.shop().toStdString(), other = desk.dir.filePath("other.shop").toStdString();
        desk.session().store()->save_copy(other);
        {
            Store s = Store::open(other);
            Documents d = s.documents();
            d.shop.name = "The other";
            s.append("Name", d);
        }
        name_it(desk, "Before");
        if (over) std::filesystem::copy_file(other, path, std::filesystem::copy_options::overwrite_existing);
        else std::filesystem::rename(other, path);
        REQUIRE(comes([&] { return desk.session().away(); }));
        CHECK(seen(desk, "take_there"));
        name_it(desk, "Typed after");
        CHECK(desk.session().unsaved());
        CHECK(desk.session().shop().name == "Typed after");
        desk.click("take_there");
        CHECK(desk.session().shop().name == "The other");
        CHECK_FALSE(desk.session().away());
        CHECK_FALSE(seen(desk, "take_there"));
        // What was typed lies beside it.
        const QString kept = desk.dir.filePath("a-kept.shop");
        REQUIRE(QFile::exists(kept));
        CHECK(Store::open(kept.toStdString()).documents().shop.name == "Typed after");
        name_it(desk, "On with the other");
        CHECK(Store::open(path).documents().shop.name == "On with the other");
        CHECK(check_shop(path).ok);
    }
}

TEST_CASE("a shop goes back to a backup, and what stood there is kept", "[app][beside]") {
    Desk desk;
    name_it(desk, "Monday");
    REQUIRE(backup_once_a_day(desk.shop().toStdString()));
    const QString backup = QString::fromStdString(backups_of(desk.shop().toStdString()).front());
    const std::string then = Store::open(backup.toStdString()).documents().shop.name;
    name_it(desk, "Tuesday");
    desk.once_asked([&] { desk.press(Qt::Key_Return); });
    desk.window->choose_backup();
    CHECK(desk.session().shop().name == then);
    CHECK(desk.text("status").contains("before"));
    bool kept = false;
    for (const QFileInfo& f : QDir(desk.dir.path()).entryInfoList({"a.shop.before-*"}))
        if (!f.fileName().endsWith("-wal") && !f.fileName().endsWith("-shm"))
            kept = kept || Store::open(f.filePath().toStdString()).documents().shop.name == "Tuesday";
    CHECK(kept);
}

TEST_CASE("a journal of another file is set aside by hand, and the shop opens", "[app][beside]") {
    Desk desk;
    const std::string path = desk.shop().toStdString(), wal = path + "-wal";
    name_it(desk, "Written last");
    QFile::copy(QString::fromStdString(wal), desk.dir.filePath("journal"));
    desk.window.reset();
    REQUIRE(QFile::remove(desk.shop()));
    REQUIRE(QFile::copy(grown_demo(), desk.shop()));
    REQUIRE(QFile::copy(desk.dir.filePath("journal"), QString::fromStdString(wal)));
    desk.restart();
    if (desk.session().is_open()) {
        // Its pages happened to be the same: then there was nothing to mind.
        CHECK(check_shop(path).ok);
        return;
    }
    desk.click("journal_aside");
    CHECK(desk.session().is_open());
    CHECK(desk.text("status").contains("journal"));
    CHECK(check_shop(path).ok);
}

TEST_CASE("pasting nothing into a note writes nothing and ends nothing, what was begun survives", "[app][beside][book]") {
    Desk desk;
    QApplication::clipboard()->setMimeData(new QMimeData);  // its owner has left
    desk.once_asked([&] {
        desk.keys("begun");
        desk.press(Qt::Key_V, Qt::ControlModifier);
        desk.press(Qt::Key_Insert, Qt::ShiftModifier);
        CHECK(QApplication::activeModalWidget()->findChild<QPlainTextEdit*>()->toPlainText() == "begun");
        // As after a crash: another window, and the note is there.
        desk.keys(" and ended by a kill");
        desk.press(Qt::Key_Escape);
    });
    desk.press(Qt::Key_N);
    desk.restart();
    desk.once_asked([&] {
        CHECK(QApplication::activeModalWidget()->findChild<QPlainTextEdit*>()->toPlainText() == "begun and ended by a kill");
        desk.press(Qt::Key_Return, Qt::ControlModifier);
    });
    desk.press(Qt::Key_N);
    CHECK(desk.session().store()->book().back().value == "begun and ended by a kill");
}

TEST_CASE("an instrument's file that is cut, written anew or removed, and a pipe whose writer went, are said",
          "[app][instruments][beside]") {
    Desk desk;
    Instruments& all = desk.window->instruments();
    QStringList said;
    QObject::connect(&all, &Instruments::said, &all, [&](const QString& text, bool) { said << text; });
    const QString path = written(desk, "meter.log", "H meter\r\n");
    REQUIRE(all.listen(path).isEmpty());
    const auto heard = [&](const char* words) { return comes([&] { return said.filter(words).size() == 1; }); };
    REQUIRE(heard("listening in"));
    written(desk, "meter.log", "H\r\n");  // cut to less than was read
    CHECK(heard("cut or written anew"));
    // A reading of the new one arrives.
    QFile log(path);
    REQUIRE(log.open(QIODevice::Append));
    log.write(instrument_line(11.5, "%MC").c_str());
    log.close();
    CHECK(comes([&] { return all.last().what == "moisture"; }));
    const QString turned = desk.dir.filePath("meter.log.1");
    REQUIRE(QFile::rename(path, turned));
    CHECK(heard("was removed"));
    written(desk, "meter.log", instrument_line(21.5, "C").c_str());
    CHECK(heard("Another file stands"));
    CHECK(comes([&] { return all.last().what == "temperature"; }));
    QTest::qWait(200);
    CHECK(said.filter("was removed").size() == 1);
    const QString pipe = desk.dir.filePath("pipe");
    REQUIRE(::mkfifo(pipe.toLocal8Bit().constData(), 0600) == 0);
    REQUIRE(all.listen(pipe).isEmpty());
    QTest::qWait(200);
    CHECK(said.filter("Whoever wrote").isEmpty());  // nobody has yet
    {
        QFile out(pipe);
        REQUIRE(out.open(QIODevice::WriteOnly | QIODevice::Unbuffered));
        out.write(instrument_line(402.5, "g").c_str());
        CHECK(comes([&] { return all.last().what == "mass"; }));
    }
    CHECK(heard("Whoever wrote"));
}
