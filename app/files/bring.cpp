#include "app/files/bring.h"
#include "app/files/bring_text.h"

#include <algorithm>

#include <QBuffer>
#include <QDate>
#include <QFileInfo>
#include <QImageReader>

#include "app/ground/session/session.h"
#include "app/kit/fields/field.h"
#include "core/files/io/csv.h"
#include "core/files/io/days_off.h"
#include "core/files/io/stock_list.h"
#include "core/ground/file/digest.h"
#include "core/ground/file/file.h"
#include "core/ground/file/format_error.h"
#include "core/shop/edit/money_edits.h"
#include "core/shop/edit/shop_edits.h"
#include "core/shop/edit/skin_edits.h"
#include "core/shop/edit/slab_edits.h"

namespace yb {

std::string add_slab(Session& session, const Slab& slab, const QString& label) {
    std::string id;
    session.edit(label, [&](Documents& d) { id = add_slab(d, slab); });
    session.set_step(step_key::rack);
    session.look_at(QString::fromStdString(id));
    return id;
}

void bring_scan(Session& session, LongWork& work, const QString& path, std::function<void(const QString&)> say) {
    work.run(
        QObject::tr("Reading the scan"),
        [path](const Work& w) {
            const Cloud cloud = read_cloud(read_file(path.toStdString(), most_cloud_bytes), w.part(0, 0.4));
            ScanResult r = slab_from_scan(cloud, {}, w.part(0.4, 0.9));
            if (cloud.not_numbers > 0)
                r.notes.push_back(std::to_string(cloud.not_numbers) + " points had coordinates that are no numbers and were left out.");
            return std::pair(std::move(r), to_ply(r.on_slab));
        },
        [&session, path, say, begun = session.begun()](const std::pair<ScanResult, std::string>& read) {
            if (!session.still_open(begun, QObject::tr("Slab from a scan"))) return;
            const auto& [r, cloud] = read;
            Slab slab = r.slab;
            slab.name = plain_text(QFileInfo(path).completeBaseName().toStdString());
            for (const std::string& n : r.notes) slab.notes += (slab.notes.empty() ? "" : " ") + n;
            QString text = QObject::tr("%1 points on the slab.").arg(r.used);
            const std::string key = attachment_key(cloud);
            if (Store* store = session.store(); store && !session.read_only()) try {
                    store->attach(key, cloud);  // all of its points are kept
                    slab.scan = key;
                } catch (const StoreError& e) {
                    text = QString::fromStdString(e.what());
                }
            add_slab(session, slab, QObject::tr("Slab from a scan"));
            for (const std::string& n : r.notes) text += " " + QString::fromStdString(n);
            say(text);
        });
}

void bring_list(Session& session, LongWork& work, const QString& path, std::function<void(const QString&)> say) {
    constexpr std::uint64_t most_bytes = 20'000'000;
    bring_text(
        work, QObject::tr("Reading the list"), path, most_bytes,
        [units = session.units()](const std::string& text, const Work&) { return read_stock_list(text, units); },
        [&session, say, begun = session.begun()](const std::vector<Slab>& read) {
            if (!session.still_open(begun, QObject::tr("A list of slabs"))) return;
            if (read.empty()) return say(QObject::tr("The list has a header and no slab below it."));
            std::string first;
            const bool taken = session.edit(QObject::tr("Slabs from a list"), [&](Documents& d) {
                for (const Slab& s : read)
                    if (const std::string id = add_slab(d, s); first.empty()) first = id;
            });
            if (!taken) return;  // it is said why
            session.set_step(step_key::rack);
            session.look_at(QString::fromStdString(first));
            say(QObject::tr("%1 slabs stand on the rack. Widths are an even strip until somebody tapes them.").arg(read.size()));
        });
}

void bring_days_off(Session& session, LongWork& work, const QString& path, const std::function<void(const QString&, bool)>& say) {
    bring_text(
        work, QObject::tr("Reading the calendar"), path, most_csv_bytes,
        [from = QDate::currentDate().toString(Qt::ISODate).toStdString()](const std::string& text, const Work& w) {
            return read_days_off(text, {from}, w);
        },
        [&session, say, begun = session.begun()](const DaysOffRead& read) {
            if (!session.still_open(begun, QObject::tr("Days off"))) return;
            std::size_t added = 0;
            const bool taken = session.edit_shop(QObject::tr("Days off"), [&](Shop& s) { added = add_days_off(s, read.off); });
            if (!taken) return;
            QString text = added == 1 ? QObject::tr("1 stretch of days off was added.")
                                      : QObject::tr("%1 stretches of days off were added.").arg(added);
            for (const std::string& n : read.notes) text += ' ' + QString::fromStdString(n);
            say(text, false);
        });
}

void bring_air(Session& session, LongWork& work, const QString& path, const std::function<void(const QString&, bool)>& say) {
    bring_text(
        work, QObject::tr("Reading the air"), path, most_csv_bytes, [](const std::string& text, const Work&) { return read_air(text); },
        [&session, say, path, begun = session.begun()](const AirLog& log) {
            const auto months = std::count_if(log.months.begin(), log.months.end(), [](const auto& m) { return m.has_value(); });
            const std::string name = plain_text(QFileInfo(path).completeBaseName().toStdString());
            if (session.edit_begun(begun, QObject::tr("The room's air"), [&](Job& j) { set_room_air(j, log, name); }))
                say(QObject::tr("%1 readings in %2 months: the room's other months stay as they were.").arg(log.readings).arg(months),
                    false);
        });
}

namespace {
/// Reads a photograph beside the work, turns it upright, makes it small, keeps it once in the shop; then its key is handed on.
void keep_picture(Session& session, LongWork& work, const QString& path, const QString& what, std::function<void(const QString&, bool)> say,
                  std::function<void(const Session::Begun&, const std::string& key)> then) {
    work.run(
        QObject::tr("Reading the picture"),
        [path](const Work&) {
            const QString name = QFileInfo(path).fileName();
            if (QFileInfo(path).size() > 64'000'000)
                throw FormatError(
                    name.toStdString(),
                    QObject::tr("it is larger than 64 MB, the most that is read here: save it smaller and bring it again").toStdString());
            QImageReader reader(path);
            reader.setAutoTransform(true);
            QImage image = reader.read();
            if (image.isNull())
                throw FormatError(name.toStdString(), QObject::tr("it can't be read as a picture: choose a JPEG or PNG").toStdString());
            if (std::max(image.width(), image.height()) > 1600)
                image = image.scaled(1600, 1600, Qt::KeepAspectRatio, Qt::SmoothTransformation);
            QByteArray bytes;
            QBuffer buffer(&bytes);
            buffer.open(QIODevice::WriteOnly);
            image.convertToFormat(QImage::Format_RGB32).save(&buffer, "JPG", 88);
            return bytes.toStdString();
        },
        [&session, say, what, then, begun = session.begun()](const std::string& bytes) {
            if (!session.still_open(begun, what)) return;
            Store* store = session.store();
            if (!store || session.read_only()) return say(QObject::tr("Nothing can be kept here: this shop is only read."), true);
            const std::string key = attachment_key(bytes);
            try {
                store->attach(key, bytes);
            } catch (const StoreError& e) {
                return say(QString::fromStdString(e.what()), true);
            }
            then(begun, key);
        });
}
}  // namespace

void bring_sample(Session& session, LongWork& work, const QString& path, std::function<void(const QString&)> say) {
    keep_picture(
        session, work, path, QObject::tr("The sample's picture"), [say](const QString& text, bool) { say(text); },
        [&session, say](const Session::Begun& begun, const std::string& key) {
            session.edit_begun(begun, QObject::tr("The sample's picture"), [&](Job& j) { keep_sample_picture(j, key); });
            say(QObject::tr("The sample's picture is kept with the job."));
        });
}

void bring_signed(Session& session, LongWork& work, const QString& path, std::function<void(const QString&, bool)> say) {
    keep_picture(session, work, path, QObject::tr("The signed paper"), say,
                 [&session, say](const Session::Begun& begun, const std::string& key) {
                     if (session.edit_begun(begun, QObject::tr("The signed paper"), [&](Job& j) { sign_agreement(j, key); }))
                         say(QObject::tr("The signed paper is kept with what was agreed."), false);
                 });
}

void bring_photo_of_job(Session& session, LongWork& work, const QString& path, std::function<void(const QString&, bool)> say) {
    const QFileInfo file(path);
    const Thing* thing = session.picked_thing();
    JobPhoto photo{{},
                   file.lastModified().date().toString(Qt::ISODate).toStdString(),
                   plain_text(file.completeBaseName().toStdString()),
                   thing ? thing->key : std::string()};
    keep_picture(session, work, path, QObject::tr("The photograph"), say,
                 [&session, say, photo](const Session::Begun& begun, const std::string& key) {
                     JobPhoto kept = photo;
                     kept.key = key;
                     if (session.edit_begun(begun, QObject::tr("A photograph of the job"), [&](Job& j) { add_photo(j, kept); }))
                         say(QObject::tr("The photograph is kept with the job; it stands in the book."), false);
                 });
}

void bring_drawing(Session& session, LongWork& work, const QString& path, std::optional<double> mm_per_unit, OutlineAs as,
                   std::function<void(const QString& why)> ask_unit) {
    struct Read {
        std::optional<DrawnSlab> drawn;
        std::optional<double> unlikely_mm;
    };
    work.run(
        QObject::tr("Reading the drawing"),
        [path, mm_per_unit](const Work& w) -> Read {
            try {
                const std::string bytes = read_file(path.toStdString(), most_drawing_bytes);
                const Drawing drawing = path.endsWith(".dxf", Qt::CaseInsensitive) ? read_dxf(bytes, w) : read_svg(bytes, w);
                const std::optional<double> unit = mm_per_unit ? mm_per_unit : drawing.mm_per_unit;
                if (!unit) return {};
                DrawnSlab drawn = slab_from_drawing(drawing, *unit, w);
                const std::optional<double> unlikely = unlikely_length(drawn);
                return {std::move(drawn), unlikely};
            } catch (const FormatError& e) {
                if (e.where() == path.toStdString()) throw;
                throw FormatError(QFileInfo(path).fileName().toStdString(), e.what());
            }
        },
        [&session, path, as, ask_unit, begun = session.begun()](const Read& read) {
            if (!session.still_open(begun, QObject::tr("A drawing"))) return;
            if (!read.drawn) return ask_unit(QObject::tr("The drawing does not say its unit"));
            if (read.unlikely_mm)
                return ask_unit(
                    QObject::tr("So drawn it is %1 long: the unit may be another").arg(in_units(mm(*read.unlikely_mm), session)));
            const DrawnSlab& drawn = *read.drawn;
            if (as == OutlineAs::free_form) {
                session.edit_begun(begun, QObject::tr("Free form from a drawing"),
                                   [&](Job& j) { set_free_form_over_middle(j, drawn.outline.a); });
                return;
            }
            Slab slab;
            slab.name = plain_text(QFileInfo(path).completeBaseName().toStdString());
            slab.outline = drawn.outline;
            slab.flaws = drawn.flaws;
            slab.notes = "Outline from a drawing; both faces are taken alike.";
            add_slab(session, slab, QObject::tr("Slab from a drawing"));
        });
}

void bring_log(Session& session, LongWork& work, const LogRecipe& recipe, const SawPlan& saw, const DryPlan& dry, double mm_per_px,
               std::function<void(const QString&)> say) {
    struct Made {
        std::vector<Slab> slabs;
        std::vector<std::pair<std::string, std::string>> pictures;
    };
    work.run(
        QObject::tr("Growing and sawing"),
        [=](const Work& w) {
            const GrownLog log(recipe);
            const auto sawn = make_slabs(log, saw, dry, {mm_per_px, true}, w.part(0, 0.9));
            Made made;
            made.pictures.resize(sawn.size() * 2);
            in_parallel(
                sawn.size(),
                [&](std::size_t i) {
                    for (const std::size_t side : {0, 1}) {
                        auto& [key, bytes] = made.pictures[2 * i + side];
                        bytes = to_jpeg(side == 0 ? sawn[i].face_a : sawn[i].face_b);
                        key = attachment_key(bytes);
                    }
                },
                w.part(0.9, 1));
            for (const SawnSlab& s : sawn) made.slabs.push_back(s.slab);
            return made;
        },
        [&session, say, recipe, begun = session.begun()](Made& made) {
            if (!session.still_open(begun, QObject::tr("A practice log"))) return;
            if (made.slabs.empty())
                return say(QObject::tr("No board of that log is wide enough to keep. Take a thicker log or thinner boards."));
            for (std::size_t i = 0; i < made.slabs.size(); ++i) {
                Slab& s = made.slabs[i];
                s.name = "Log " + std::to_string(recipe.seed) + ", " + std::to_string(i + 1);
                s.picture_a->key = made.pictures[2 * i].first;
                s.picture_b->key = made.pictures[2 * i + 1].first;
            }
            try {
                if (Store* store = session.store(); store && !session.read_only()) store->attach(made.pictures);
            } catch (const StoreError& e) {
                return say(QString::fromStdString(e.what()));
            }
            std::string first;
            session.edit(QObject::tr("Saw a practice log"), [&](Documents& d) {
                for (const Slab& s : made.slabs) {
                    const std::string id = add_slab(d, s);
                    if (first.empty()) first = id;
                }
            });
            session.set_step(step_key::rack);
            session.look_at(QString::fromStdString(first));
            say(QObject::tr("%1 slabs stand on the rack.").arg(made.slabs.size()));
        });
}

}  // namespace yb
