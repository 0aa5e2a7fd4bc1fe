// The faces of slabs as images: read from the shop when first asked for, decoded off the interface thread.
#pragma once

#include <functional>
#include <set>

#include <QCache>
#include <QImage>
#include <QObject>

#include "app/ground/session/session.h"
#include "core/ground/picture/picture.h"

namespace yb {

class Pictures : public QObject {
    Q_OBJECT
  public:
    explicit Pictures(Session& session, QObject* parent = nullptr);
    ~Pictures() override;

    /// The image kept under a key, no wider than a bench is; null while it is on its way or when there is none.
    QImage face(const std::string& key);
    /// The same no wider than 512 px, for the rack: kept longer, and kept small in the shop once made.
    QImage thumbnail(const std::string& key);
    /// A smaller one yet as plain pixels, for colours; nullptr while it is on its way or when there is none. It stands until
    /// the next but one is asked for.
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
    // What was looked at last stays decoded; a cost is a kilobyte.
    QCache<QString, QImage> faces_{28 * 1024}, thumbnails_{16 * 1024};
    QCache<QString, Picture> small_{16 * 1024};  ///< of some 350 slabs
    std::set<std::string> on_the_way_, missing_;
    int generation_ = 0;
    Store::Attachments made_;  ///< small pictures waiting to be kept in the shop
};

}  // namespace yb
