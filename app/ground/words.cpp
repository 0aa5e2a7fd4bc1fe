#include "app/ground/words.h"

#include <map>
#include <memory>

#include <QApplication>
#include <QFile>
#include <QJsonDocument>
#include <QJsonObject>
#include <QLocale>
#include <QSettings>
#include <QTranslator>

#include "core/ground/measure/words.h"

namespace yb {

namespace {
/// tr() asks here; whose class a text stands in makes no difference.
class Speaking : public QTranslator {
  public:
    using QTranslator::QTranslator;
    QString translate(const char*, const char* english, const char*, int) const override { return told(english); }
    bool isEmpty() const override { return false; }
};
}  // namespace

void speak_language(const QString& language) {
    QFile file(":/words/" + language + ".json");
    if (!file.open(QIODevice::ReadOnly)) {
        speak({});
    } else {
        const auto words = std::make_shared<std::map<std::string, std::string>>();
        const QJsonObject all = QJsonDocument::fromJson(file.readAll()).object();
        for (auto it = all.begin(); it != all.end(); ++it) words->emplace(it.key().toStdString(), it.value().toString().toStdString());
        speak([words](const std::string& english) {
            const auto it = words->find(english);
            return it == words->end() ? english : it->second;
        });
    }
    static auto* speaking = new Speaking(qApp);
    QApplication::installTranslator(speaking);
}

QString wanted_language() { return QSettings().value("language", QLocale::system().name()).toString(); }

QString told(const std::string& english) { return QString::fromStdString(in_words(english)); }

QString what_fits(const QString& line, const QFontMetrics& metrics, double width) {
    const QString dot = QStringLiteral(" · ");
    QStringList parts = line.split(dot);
    while (!parts.isEmpty() && metrics.horizontalAdvance(parts.join(dot)) > width) parts.removeLast();
    return parts.join(dot);
}

}  // namespace yb
