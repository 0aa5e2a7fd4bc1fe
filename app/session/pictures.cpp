#include "app/session/pictures.h"

#include "app/slow/runner.h"

#include <QBuffer>

#include <algorithm>
#include <utility>

namespace yb {

namespace {
constexpr std::size_t faces_kept = 12;
const char* const thumb = "/thumb";
}  // namespace

Pictures::Pictures(Session& session, QObject* parent) : QObject(parent), session_(session) {
    connect(&session, &Session::opened, this, &Pictures::forget_all);
}

Pictures::~Pictures() = default;

void Pictures::forget_all() {
    ++generation_;
    faces_.clear(), thumbnails_.clear(), on_the_way_.clear(), missing_.clear(), order_.clear(), made_.clear();
}

void Pictures::forget(const std::string& key) {
    for (const std::string& k : {key, key + thumb}) faces_.erase(k), thumbnails_.erase(k), missing_.erase(k);
}

QImage Pictures::face(const std::string& key) {
    if (const auto it = faces_.find(key); it != faces_.end()) return it->second;
    fetch(key, false);
    return {};
}

const Picture* Pictures::small(const std::string& key) {
    const QImage image = thumbnail(key);
    if (image.isNull()) return nullptr;
    auto& [made_of, picture] = small_[key];
    if (made_of != image.cacheKey() || picture.empty()) {
        const QImage rgb = image.convertToFormat(QImage::Format_RGB888);
        picture = Picture(rgb.width(), rgb.height());
        for (int y = 0; y < rgb.height(); ++y) std::copy_n(rgb.constScanLine(y), 3 * rgb.width(), picture.at(0, y));
        made_of = image.cacheKey();
    }
    return &picture;
}

QImage Pictures::thumbnail(const std::string& key) {
    if (const auto it = thumbnails_.find(key); it != thumbnails_.end()) return it->second;
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
                if (image.width() > 512) image = image.scaledToWidth(512, Qt::SmoothTransformation);
                if (!made) {
                    QBuffer buffer(&kept);
                    buffer.open(QIODevice::WriteOnly);
                    image.save(&buffer, "JPG", 85);
                }
            }
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
        thumbnails_[key] = image;
        if (!kept.isEmpty()) made_.emplace_back(name, kept.toStdString());
        keep_made();
    } else {
        faces_[key] = image;
        order_.push_back(key);
        if (order_.size() > faces_kept) {
            faces_.erase(order_.front());
            order_.erase(order_.begin());
        }
    }
    Q_EMIT arrived(QString::fromStdString(key));
}

/// Once nothing is on its way any more, all in one go and off the interface thread.
void Pictures::keep_made() {
    if (made_.empty() || !on_the_way_.empty() || session_.read_only()) return;
    run_beside(this,
               [path = session_.path().toStdString(), made = std::exchange(made_, {})](const Work&) -> std::function<void()> {
                   Store::attach_beside(path, made);
                   return {};
               },
               {});  // a small picture that can't be kept is made again
}

}  // namespace yb
