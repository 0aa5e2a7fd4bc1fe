// The program as it is started from a shell.
#include <QProcess>

#include "core/files/store/store.h"
#include "core/shop/job/documents.h"
#include "demo/demo.h"
#include "tests/app/desk.h"

using namespace yb;

namespace {
struct Ended {
    int code = 0;
    QString said;
};
Ended start(const QStringList& args, bool display) {
    QProcess p;
    QProcessEnvironment env = QProcessEnvironment::systemEnvironment();
    env.remove("DISPLAY");
    env.remove("WAYLAND_DISPLAY");
    if (!display) env.remove("QT_QPA_PLATFORM");
    p.setProcessEnvironment(env);
    p.start(YOUNG_BURL, args);
    REQUIRE(p.waitForFinished(30000));
    CHECK(p.exitStatus() == QProcess::NormalExit);
    return {p.exitCode(), QString::fromUtf8(p.readAllStandardError())};
}
}  // namespace

TEST_CASE("without a display a sentence says how to get one, and sheets are made all the same", "[app][start]") {
    const QTemporaryDir dir;
    const QString shop = dir.filePath("a.shop");
    Store::create(shop.toStdString(), demo_shop(), "New shop");
    const Ended none = start({shop}, false);
    CHECK(none.code == 2);
    CHECK(none.said.contains("there is no display"));
    CHECK(none.said.contains("ssh"));
    const Ended sheet = start({"--sheet", dir.filePath("sheet.pdf"), shop}, false);
    INFO(sheet.said.toStdString());
    CHECK(sheet.code == 0);
    CHECK(text_of_pdf(dir.filePath("sheet.pdf")).contains("Reading table", Qt::CaseInsensitive));
}

TEST_CASE("a sheet that can't be made says why", "[app][start]") {
    const QTemporaryDir dir;
    const QString shop = dir.filePath("a.shop");
    Store::create(shop.toStdString(), demo_shop(), "New shop");
    const Ended nowhere = start({"--sheet", dir.filePath("none/sheet.pdf"), shop}, true);
    CHECK(nowhere.code == 1);
    CHECK(nowhere.said.contains("can't be written"));
    const Ended missing = start({"--sheet", dir.filePath("sheet.pdf"), dir.filePath("none.shop")}, true);
    CHECK(missing.code == 2);
    CHECK(missing.said.contains("There is no file"));
    const Ended folder = start({"--sheet", dir.filePath("sheet.pdf"), dir.path()}, true);
    CHECK(folder.code == 2);
    CHECK(folder.said.contains("is a folder"));
    CHECK_FALSE(QFile::exists(dir.filePath("sheet.pdf")));
}
