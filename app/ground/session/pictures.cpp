#include "app/ground/session/pictures.h"

#include "app/ground/slow/runner.h"

#include <QBuffer>

#include <algorithm>
#include <memory>
#include <utility>

namespace yb {

namespace {
constexpr int widest_face_px = 2048, widest_thumbnail_px = 512, widest_small_px = 192;
const char* const thumb = "/thumb";

qsizetype kilobytes(qsizetype bytes) { return 1 + bytes / 1024; }
}  // namespace

Pictures::Pictures(Session& session, QObject* parent) : QObject(parent), session_(session) {
    connect(&session, &Session::opened, this, &Pictures::forget_all);
}

Pictures::~Pictures() = default;

void Pictures::forget_all() {
    ++generation_;
    faces_.clear(), thumbnails_.clear(), small_.clear(), on_the_way_.clear(), missing_.clear(), made_.clear();
}

void Pictures::forget(const std::string& key) {
    const QString name = QString::fromStdString(key);
    faces_.remove(name), thumbnails_.remove(name), small_.remove(name);
    missing_.erase(key), missing_.erase(key + thumb);
}

QImage Pictures::face(const std::string& key) {
    if (const QImage* there = faces_.object(QString::fromStdString(key))) return *there;
    fetch(key, false);
    return {};
}

const Picture* Pictures::small(const std::string& key) {
    const QString name = QString::fromStdString(key);
    if (const Picture* there = small_.object(name)) return there;
    const QImage image = thumbnail(key);
    if (image.isNull()) return nullptr;
    const QImage rgb =
        image.scaledToWidth(std::min(image.width(), widest_small_px), Qt::SmoothTransformation).convertToFormat(QImage::Format_RGB888);
    auto made = std::make_unique<Picture>(rgb.width(), rgb.height());
    for (int y = 0; y < rgb.height(); ++y) std::copy_n(rgb.constScanLine(y), 3 * rgb.width(), made->at(0, y));
    const Picture* picture = made.get();
    return small_.insert(name, made.release(), kilobytes(rgb.sizeInBytes())) ? picture : nullptr;
}

QImage Pictures::thumbnail(const std::string& key) {
    if (const QImage* there = thumbnails_.object(QString::fromStdString(key))) return *there;
    fetch(key, true);
    return {};
}

std::function<std::optional<Picture>()> Pictures::pixels(const std::string& key) const {
    const std::string path = session_.store() ? session_.store()->path() : std::string();
    return [path, key]() -> std::optional<Picture> {
        if (path.empty() || key.empty()) return {};
        const auto bytes = Store::read_attachment(path, key);
        if (!bytes) return {};
        try {
            return read_picture(*bytes);
        } catch (const PictureError&) {
            return {};
        }
    };
}

void Pictures::fetch(const std::string& key, bool small) {
    const std::string name = small ? key + thumb : key;
    Store* store = session_.store();
    if (!store || key.empty() || on_the_way_.count(name) || missing_.count(name)) return;
    on_the_way_.insert(name);
    run_beside(
        this,
        [this, path = store->path(), key, name, small, generation = generation_](const Work&) -> std::function<void()> {
            // Read beside the work too: a face is a megabyte.
            std::optional<std::string> data;
            bool made = false;
            try {
                data = Store::read_attachment(path, name);
                made = data.has_value();
                if (!data && small) data = Store::read_attachment(path, key);
            } catch (const StoreError&) {  // told as missing
            }
            if (!data) data.emplace();
            QImage image = QImage::fromData(reinterpret_cast<const uchar*>(data->data()), static_cast<int>(data->size()));
            QByteArray kept;
            if (small && !image.isNull()) {
                if (image.width() > widest_thumbnail_px) image = image.scaledToWidth(widest_thumbnail_px, Qt::SmoothTransformation);
                if (!made) {
                    QBuffer buffer(&kept);
                    buffer.open(QIODevice::WriteOnly);
                    image.save(&buffer, "JPG", 85);
                }
            }
            if (!small && image.width() > widest_face_px) image = image.scaledToWidth(widest_face_px, Qt::SmoothTransformation);
            if (!image.isNull()) image.convertTo(QImage::Format_RGB32);
            return [this, name, key, small, image, kept, generation] { take(name, key, small, image, kept, generation); };
        },
        [this, name](const QString&) {
            on_the_way_.erase(name);
            missing_.insert(name);
        });
}

void Pictures::take(const std::string& name, const std::string& key, bool small, const QImage& image, const QByteArray& kept,
                    int generation) {
    if (generation_ != generation) return;
    on_the_way_.erase(name);
    if (image.isNull()) {
        missing_.insert(name);
        return;
    }
    if (small) {
        thumbnails_.insert(QString::fromStdString(key), new QImage(image), kilobytes(image.sizeInBytes()));
        if (!kept.isEmpty()) made_.emplace_back(name, kept.toStdString());
        keep_made();
    } else {
        faces_.insert(QString::fromStdString(key), new QImage(image), kilobytes(image.sizeInBytes()));
    }
    Q_EMIT arrived(QString::fromStdString(key));
}

/// Once nothing is on its way any more, all in one go and off the interface thread.
void Pictures::keep_made() {
    if (made_.empty() || !on_the_way_.empty() || session_.read_only()) return;
    run_beside(this,
               [file = session_.store()->beside(), made = std::exchange(made_, {})](const Work&) -> std::function<void()> {
                   Store::attach_beside(file, made);
                   return {};
               },
               {});  // a small picture that can't be kept is made again
}

}  // namespace yb
