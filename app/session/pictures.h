// The faces of slabs as images: read from the shop when first asked for, decoded off the interface thread.
#pragma once

#include <functional>
#include <map>
#include <set>

#include <QImage>
#include <QObject>

#include "app/session/session.h"
#include "core/picture/picture.h"

namespace yb {

class Pictures : public QObject {
    Q_OBJECT
  public:
    explicit Pictures(Session& session, QObject* parent = nullptr);
    ~Pictures() override;

    /// The image kept under a key at its full size; null while it is on its way or when there is none.
    QImage face(const std::string& key);
    /// The same no wider than 512 px, for the rack: kept longer, and kept small in the shop once made.
    QImage thumbnail(const std::string& key);
    /// The thumbnail as plain pixels; nullptr while it is on its way or when there is none.
    const Picture* small(const std::string& key);
    /// Reads and decodes a picture where it is called, from any thread: for work that compares pictures. Nothing where there
    /// is none. @throws StoreError.
    std::function<std::optional<Picture>()> pixels(const std::string& key) const;
    bool has(const std::string& key) const { return !key.empty() && session_.store() && session_.store()->has_attachment(key); }
    /// Forgets what was decoded under a key: it was attached anew.
    void forget(const std::string& key);
    void forget_all();

  Q_SIGNALS:
    void arrived(const QString& key);  ///< an image asked for earlier is there now; empty: all may be others

  private:
    void fetch(const std::string& key, bool small);
    void take(const std::string& name, const std::string& key, bool small, const QImage& image, const QByteArray& kept, int generation);
    void keep_made();

    Session& session_;
    std::map<std::string, QImage> faces_, thumbnails_;
    std::map<std::string, std::pair<qint64, Picture>> small_;  ///< of which thumbnail
    std::set<std::string> on_the_way_, missing_;
    std::vector<std::string> order_;  ///< of faces, oldest first: only a few stay decoded
    int generation_ = 0;
    Store::Attachments made_;  ///< small pictures waiting to be kept in the shop
};

}  // namespace yb
