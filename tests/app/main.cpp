// The program driven as a maker drives it: clicks, keys and drags, and what is then to be read.
#include <QApplication>
#include <QStandardPaths>

#include <cstdlib>

#include "app/application.h"
#include "app/ground/slow/runner.h"
#include "app/ground/theme/theme.h"

int run_tests(int argc, char** argv);

int main(int argc, char** argv) {
    // Also when the build only asks which tests there are.
    if (!qEnvironmentVariableIsSet("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
    QStandardPaths::setTestModeEnabled(true);
    yb::Application app(argc, argv);
    QApplication::setOrganizationName("young-burl-test");
    yb::theme::apply(app);
    const int failed = run_tests(argc, argv);
    // Work that a test left beside ends before what it reads does.
    if (!yb::stop_all(120000)) std::_Exit(1);
    return failed;
}
