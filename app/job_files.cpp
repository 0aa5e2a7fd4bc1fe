#include "app/job_files.h"

#include <QFile>
#include <QFileInfo>

#include "app/session/session.h"
#include "app/session/whole_file.h"
#include "core/io/json.h"

namespace yb {

std::string fresh_id(const char* stem, const Documents& d) {
    for (int i = 1;; ++i) {
        std::string id = std::string(stem) + "-" + std::to_string(i);
        if (!d.slabs.count(id) && !d.jobs.count(id)) return id;
    }
}

QString write_job(const Session& session, const QString& path) {
    const Job* j = session.job();
    const auto slab = j ? session.documents().slabs.find(j->slab) : session.documents().slabs.end();
    if (slab == session.documents().slabs.end()) return QObject::tr("The job has no slab yet: there is nothing to export.");
    return write_whole(path, QByteArray::fromStdString(write_job_file({*j, slab->second, session.shop()})));
}

QString read_job(Session& session, const QString& path) {
    QFile file(path);
    if (!file.open(QIODevice::ReadOnly)) return QObject::tr("%1 can't be read: %2.").arg(path, file.errorString());
    try {
        JobFile f = read_job_file(file.readAll().toStdString());
        // A slab or job of that name that differs stays; the newcomer gets a name of its own.
        const Documents& now = session.documents();
        if (now.slabs.count(f.slab.id) && !(now.slabs.at(f.slab.id) == f.slab)) f.slab.id = fresh_id("slab", now);
        f.job.slab = f.slab.id;
        if (now.jobs.count(f.job.id)) f.job.id = fresh_id("job", now);
        session.edit(QObject::tr("Import a job"), [&](Documents& d) {
            d.slabs[f.slab.id] = f.slab;
            d.jobs[f.job.id] = f.job;
        });
        session.set_job(QString::fromStdString(f.job.id));
        return {};
    } catch (const FormatError& e) {
        return QObject::tr("%1: %2. Nothing was changed.").arg(QFileInfo(path).fileName(), QString::fromStdString(e.what()));
    }
}

}  // namespace yb
