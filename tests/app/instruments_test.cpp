// Instruments by hand: readings arrive where the cursor is, are shown large, taken or refused, and stand in the book; two at once; bad
// lines, a flood, a line that goes.
#include <sys/stat.h>

#include "app/ground/instruments.h"
#include "app/pages/card/card_page.h"
#include "core/shop/book/book.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "devices/probe.h"
#include "tests/app/desk.h"

using namespace yb;

namespace {

/// A file that an instrument writes its lines to.
struct Wire {
    QFile file;
    explicit Wire(const QString& path) : file(path) { REQUIRE(file.open(QIODevice::WriteOnly | QIODevice::Unbuffered)); }
    void send(const std::string& line) {
        REQUIRE(file.write(line.data(), static_cast<qint64>(line.size())) == static_cast<qint64>(line.size()));
    }
};

template <class F>
bool comes(F what) {
    for (int i = 0; i < 300 && !what(); ++i) QTest::qWait(20);
    return what();
}

}  // namespace

TEST_CASE("a reading arrives where the cursor is, shown large – taken it is typed and stands in the book, refused the line is as it was",
          "[app][instruments]") {
    Desk desk;
    desk.session().set_job("job-reading-table");
    Wire meter(desk.dir.filePath("meter")), scale(desk.dir.filePath("scale"));
    Instruments& all = desk.window->instruments();
    REQUIRE(all.listen(meter.file.fileName()).isEmpty());
    REQUIRE(all.listen(scale.file.fileName()).isEmpty());
    CHECK(all.listening() == 2);
    CHECK_FALSE(all.listen(desk.dir.filePath("nothing there")).isEmpty());
    // The cursor stands on a line of Lay.
    desk.session().set_step(step_key::lay);
    auto* line = desk.find<QLineEdit>("top_length");
    desk.reveal(line);
    line->setFocus();
    const QString was = line->text();
    meter.send("H pin meter\r\n");
    meter.send(instrument_line(11.2, "%MC"));
    auto* figure = desk.find<QLabel>("reading_figure");
    REQUIRE(comes([&] { return figure->isVisible(); }));
    CHECK(figure->text().contains("%"));
    CHECK(desk.text("reading_about").contains("pin meter"));
    CHECK(line->text() == figure->text());
    const std::size_t lines = desk.session().store()->book().size();
    desk.click("reading_refuse");
    CHECK(line->text() == was);
    CHECK(desk.session().store()->book().size() == lines);
    CHECK_FALSE(figure->isVisible());
    // With the cursor on no line it goes into the book alone.
    line->clearFocus();
    desk.window->setFocus();
    QTest::qWait(250);
    scale.send(instrument_line(412, "g"));
    REQUIRE(comes([&] { return figure->isVisible(); }));
    desk.click("reading_keep");
    const auto book = desk.session().store()->book();
    REQUIRE(book.size() == lines + 1);
    CHECK(book.back().what == "mass");
    CHECK(book.back().value == "0.412");
    CHECK(book.back().unit == "kg");
    CHECK(book.back().of.find("scale") != std::string::npos);
    // A length goes into its line and is entered as if it had been typed.
    QTest::qWait(250);
    line->setFocus();
    line->selectAll();
    scale.send(instrument_line(2105, "mm"));
    REQUIRE(comes([&] { return figure->isVisible(); }));
    desk.click("reading_keep");
    CHECK(comes([&] { return desk.session().documents().jobs.at("job-reading-table").top.length_mm == 2105; }));
    CHECK(desk.session().store()->book().back().kind == "change");
}

TEST_CASE("garble, half lines, wild readings, a flood and a bad day are survived and said", "[app][instruments][hostile]") {
    Desk desk;
    Wire wire(desk.dir.filePath("wire"));
    Instruments& all = desk.window->instruments();
    QStringList said;
    QObject::connect(&all, &Instruments::said, [&](const QString& s, bool) { said << s; });
    REQUIRE(all.listen(wire.file.fileName()).isEmpty());
    wire.send("R 12.0 %MC*00\r\n");
    REQUIRE(comes([&] { return !said.isEmpty(); }));
    CHECK(said.last().contains("garbled"));
    wire.send("R 140 %MC\r\n");
    REQUIRE(comes([&] { return said.last().contains("140"); }));
    CHECK(said.last().contains("no wood"));
    wire.send("R 12");  // half a line, the rest a moment later
    QTest::qWait(120);
    auto* figure = desk.find<QLabel>("reading_figure");
    CHECK_FALSE(figure->isVisible());
    wire.send(".5 %RH\r\n");
    REQUIRE(comes([&] { return figure->isVisible(); }));
    CHECK(figure->text().startsWith("12"));
    // Ten thousand lines: the last is what stands there, the window still answers.
    std::string flood;
    for (int i = 0; i < 10000; ++i) flood += instrument_line(i % 90, "%RH");
    flood += instrument_line(77, "%RH");
    wire.send(flood);
    REQUIRE(comes([&] { return figure->text().startsWith("77"); }));
    CHECK(desk.text("reading_about").contains("faster than they can be read"));
    desk.press(Qt::Key_4);
    CHECK(desk.session().step() == step_key::fill);
    for (const char* what : {"gauge", "thermocouple", "meter", "air", "scale"})
        for (const std::string& l : day_of(what, true)) wire.send(l);
    QTest::qWait(400);
    wire.file.remove();
    QTest::qWait(150);
    all.let_go_all();
    CHECK(all.listening() == 0);
}

TEST_CASE("a pipe is listened to without waiting for its writer", "[app][instruments]") {
    Desk desk;
    const QString path = desk.dir.filePath("pipe");
    REQUIRE(::mkfifo(path.toLocal8Bit().constData(), 0600) == 0);
    Instruments& all = desk.window->instruments();
    REQUIRE(all.listen(path).isEmpty());
    QProcess writer;
    writer.start("sh", {"-c", QString("printf 'H scale\\r\\nR 1.5 kg\\r\\n' > '%1'").arg(path)});
    REQUIRE(writer.waitForFinished());
    auto* figure = desk.find<QLabel>("reading_figure");
    REQUIRE(comes([&] { return figure->isVisible(); }));
    CHECK(figure->text().contains("1.5"));
}

TEST_CASE("a batch is weighed on the card: so much of A to go, B corrected to what was poured", "[app][instruments][pour]") {
    Desk desk;
    desk.session().set_job("job-tarn-river");
    CardPage* card = desk.window->show_card("pour");
    card->start();
    for (int i = 0; i < 12 && !desk.text("card_line").contains("In the cup"); ++i) {
        card->take_mass(100);
        if (!desk.text("card_line").contains("In the cup")) card->tick_off();
    }
    REQUIRE(desk.text("card_line").contains("of part A to go"));
    const Batch& b = desk.session().plan()->pour->batches.front();
    card->take_mass(b.a_g + 20);
    CHECK(desk.text("card_line").contains("20 g of part A too much"));
    card->setFocus();
    QTest::keyClick(card, Qt::Key_Return);
    CHECK(desk.text("card_line").contains(QString("stop at %1 g").arg(std::round((b.a_g + 20) * (1 + b.b_g / b.a_g)))));
}
