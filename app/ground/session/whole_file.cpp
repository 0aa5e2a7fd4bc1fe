#include "app/ground/session/whole_file.h"

#include <QFile>
#include <QObject>
#include <QSaveFile>

namespace yb {

QString write_whole(const QString& path, const QByteArray& bytes) {
    QSaveFile file(path);
    // Committing alone does not tell that the last bytes found no room: the flush does.
    if (file.open(QIODevice::WriteOnly) && file.write(bytes) == bytes.size() && file.flush() && file.commit()) return {};
    return QObject::tr("%1 can't be written: the disk is full, or nothing may be written there. Choose another place.").arg(path);
}

QString free_shop_name(const QString& stem) {
    QString name = stem + ".shop";
    for (int i = 2; QFile::exists(name); ++i) name = stem + QString("-%1.shop").arg(i);
    return name;
}

}  // namespace yb
