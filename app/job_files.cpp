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
    JobFile file;
    if (j) file.job = *j;
    file.shop = session.shop();
    for (const Leaf& l : file.job.leaves)
        if (!session.documents().slabs.count(l.slab)) return QObject::tr("The job has no slab yet: there is nothing to export.");
    for (const std::string& id : file.job.slabs()) {
        const auto it = session.documents().slabs.find(id);
        if (it == session.documents().slabs.end()) continue;
        file.slabs.push_back(it->second);
        for (const auto& picture : {it->second.picture_a, it->second.picture_b})
            if (const auto bytes = picture && session.store() ? session.store()->attachment(picture->key) : std::nullopt)
                file.pictures[picture->key] = QByteArray::fromStdString(*bytes).toBase64().toStdString();
    }
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
            for (const auto& [picture, side] : {std::pair(&slab.picture_a, "/a"), std::pair(&slab.picture_b, "/b")}) {
                if (!*picture) continue;
                const auto it = f.pictures.find((*picture)->key);
                if (slab.id != was) (*picture)->key = slab.id + side;
                if (it != f.pictures.end())
                    pictures.emplace_back((*picture)->key, QByteArray::fromBase64(QByteArray::fromStdString(it->second)).toStdString());
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
