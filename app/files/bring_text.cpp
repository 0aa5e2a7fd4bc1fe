#include "app/files/bring_text.h"

#include <QInputDialog>

namespace yb {

std::optional<std::string> ask_code_page(QWidget* over, const QString& path, const std::vector<UnknownCodePage::Reading>& readings) {
    QStringList lines;
    for (const auto& r : readings)
        lines << QObject::tr("%1   (%2)").arg(QString::fromStdString(r.sample).simplified(), QObject::tr(r.page.where));
    bool ok = false;
    const QString chosen =
        QInputDialog::getItem(over->window(), QObject::tr("How are its letters written?"),
                              QObject::tr("%1 does not say how letters beyond a to z are written. Choose the line that reads right:")
                                  .arg(QFileInfo(path).fileName()),
                              lines, 0, false, &ok);
    if (!ok || chosen.isEmpty()) return {};
    return readings[static_cast<std::size_t>(lines.indexOf(chosen))].page.name;
}

}  // namespace yb
