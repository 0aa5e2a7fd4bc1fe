#include "app/files/job_files.h"

#include <QFileInfo>

#include "app/ground/session/session.h"
#include "app/ground/session/whole_file.h"
#include "core/files/io/job_file.h"
#include "core/ground/file/file.h"
#include "core/ground/file/format_error.h"
#include "core/shop/job/documents.h"

namespace yb {

QString write_job(const Session& session, const QString& path) {
    const Job* j = session.job();
    if (!j) return QObject::tr("There is no job to export.");
    for (const Leaf& l : j->leaves)
        if (!session.slabs().count(l.slab)) return QObject::tr("The job has no slab yet: there is nothing to export.");
    const JobFile file = job_file(session.documents(), j->id, [&](const std::string& key) {
        return session.store() ? session.store()->attachment(key) : std::nullopt;
    });
    return write_whole(path, QByteArray::fromStdString(write_job_file(file)));
}

QString read_job(Session& session, const QString& path) {
    try {
        const std::string text = read_file(path.toStdString(), most_json_bytes);
        Documents next = session.documents();
        Store::Attachments pictures;
        const std::string id = take_job_file(
            next, read_job_file(text),
            [&](const std::string& key) { return session.store() ? session.store()->attachment(key) : std::nullopt; }, pictures);
        if (session.store() && !session.read_only()) session.store()->attach(pictures);
        session.edit(QObject::tr("Import a job"), [&](Documents& d) { d = next; });
        session.set_job(QString::fromStdString(id));
        return {};
    } catch (const StoreError& e) {
        return QString::fromStdString(e.what());
    } catch (const FormatError& e) {
        if (e.where() == path.toStdString()) return QString::fromStdString(e.what()) + ".";
        return QObject::tr("%1: %2. Nothing was changed.").arg(QFileInfo(path).fileName(), QString::fromStdString(e.what()));
    }
}

}  // namespace yb
