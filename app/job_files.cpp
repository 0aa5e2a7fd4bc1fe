#include "app/job_files.h"

#include <QFile>
#include <QFileInfo>

#include "app/session/session.h"
#include "app/session/whole_file.h"
#include "core/io/json.h"

namespace yb {

QString write_job(const Session& session, const QString& path) {
    const Job* j = session.job();
    if (!j) return QObject::tr("There is no job to export.");
    for (const Leaf& l : j->leaves)
        if (!session.documents().slabs.count(l.slab)) return QObject::tr("The job has no slab yet: there is nothing to export.");
    const JobFile file = job_file(session.documents(), j->id, [&](const std::string& key) {
        return session.store() ? session.store()->attachment(key) : std::nullopt;
    });
    return write_whole(path, QByteArray::fromStdString(write_job_file(file)));
}

QString read_job(Session& session, const QString& path) {
    QFile file(path);
    if (!file.open(QIODevice::ReadOnly)) return QObject::tr("%1 can't be read: %2.").arg(path, file.errorString());
    try {
        JobFile f = read_job_file(file.readAll().toStdString());
        // A slab or job of that name that differs stays; the newcomer gets a name of its own, its pictures with it.
        const Documents& now = session.documents();
        Documents next = now;
        Store::Attachments pictures;
        for (Slab& slab : f.slabs) {
            const std::string was = slab.id;
            if (next.slabs.count(slab.id) && !(next.slabs.at(slab.id) == slab)) slab.id = fresh_id("slab", next);
            for (auto* picture : {&slab.picture_a, &slab.picture_b}) {
                if (!*picture) continue;
                const auto it = f.pictures.find((*picture)->key);
                if (it == f.pictures.end()) continue;
                std::string bytes = from_base64(it->second);
                // A picture that is not the one kept under that name here gets the name of its own bytes.
                if (session.store() && session.store()->has_attachment((*picture)->key) &&
                    session.store()->attachment((*picture)->key) != bytes)
                    (*picture)->key = attachment_key(bytes);
                pictures.emplace_back((*picture)->key, std::move(bytes));
            }
            slab.scan.clear();  // the cloud stayed behind; the heights taken from it are here
            for (Leaf& l : f.job.leaves)
                if (l.slab == was) l.slab = slab.id;
            for (Patch& p : f.job.makeup.patches)
                if (p.slab == was) p.slab = slab.id;
            next.slabs[slab.id] = slab;
        }
        if (next.jobs.count(f.job.id)) f.job.id = fresh_id("job", next);
        next.jobs[f.job.id] = f.job;
        if (session.store() && !session.read_only()) session.store()->attach(pictures);
        session.edit(QObject::tr("Import a job"), [&](Documents& d) { d = next; });
        session.set_job(QString::fromStdString(f.job.id));
        return {};
    } catch (const StoreError& e) {
        return QString::fromStdString(e.what());
    } catch (const FormatError& e) {
        return QObject::tr("%1: %2. Nothing was changed.").arg(QFileInfo(path).fileName(), QString::fromStdString(e.what()));
    }
}

}  // namespace yb
