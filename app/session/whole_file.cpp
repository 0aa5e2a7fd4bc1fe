#include "app/session/whole_file.h"

#include <QObject>
#include <QSaveFile>

namespace yb {

QString write_whole(const QString& path, const QByteArray& bytes) {
    QSaveFile file(path);
    // Committing alone does not tell that the last bytes found no room: the flush does.
    if (file.open(QIODevice::WriteOnly) && file.write(bytes) == bytes.size() && file.flush() && file.commit()) return {};
    return QObject::tr("%1 can't be written: %2. Choose another place.").arg(path, file.errorString());
}

}  // namespace yb
