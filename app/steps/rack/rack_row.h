// All slabs of the shop standing at one common scale, with their faces; filtered, sorted, scrolled sideways.
#pragma once

#include <QPixmap>
#include <QWidget>

#include "app/ground/session/session.h"
#include "app/ground/slow/slow.h"
#include "core/steps/rack/rack.h"

class QComboBox;
class QLabel;
class QLineEdit;

namespace yb {

class Pictures;

class RackRow : public QWidget {
    Q_OBJECT
  public:
    RackRow(Session& session, Pictures& pictures, QWidget* parent = nullptr);
    /// Where a slab stands, px; empty for one that is not there or not in sight.
    QRectF place_of(const QString& slab_id) const;
    /// Ids of the slabs that pass the filter, in order.
    QStringList shown() const;
    /// Paints once and waits for nothing: for timing how the row scrolls.
    void scroll_to(double px);

  protected:
    void paintEvent(QPaintEvent*) override;
    void showEvent(QShowEvent* e) override;
    void resizeEvent(QResizeEvent*) override;
    void mousePressEvent(QMouseEvent* e) override;
    void keyPressEvent(QKeyEvent* e) override;
    bool event(QEvent* e) override;
    void wheelEvent(QWheelEvent* e) override;

  private:
    struct Standing {
        RackEntry entry;
        Box box;
        QString about, state, tip;
        double x = 0, width = 0;  ///< px from the left end of the row
    };
    void rebuild();
    void take(std::vector<RackEntry> entries);
    void choose();
    void lay_out();
    void bring_in_sight(const std::string& id);
    void draw_one(QPainter& p, const Standing& s);
    QPixmap standing_picture(const Standing& s);
    double floor() const;
    QString tip_of(const RackEntry& e) const;

    Session& session_;
    Pictures& pictures_;
    QLineEdit* filter_;
    QComboBox* order_;
    QLabel* count_;
    std::vector<RackEntry> all_;
    std::vector<Standing> slabs_;
    std::map<std::string, Slab> built_for_;
    std::string built_jobs_, in_sight_;
    bool stale_ = false;  ///< the shop changed while the row was out of sight
    std::map<std::string, QPixmap> drawn_;
    double scale_ = 0.05, scroll_ = 0, length_ = 0;
    /// What the rack is asked with, copied: a large one is read beside the work.
    struct Asked {
        std::map<std::string, Slab> slabs;
        std::map<std::string, std::string> taken;
        Climate air;
        double dry_pct = 0;
        std::optional<WantedTop> wanted;
        std::string today;
        double drying_times = 1;
        bool operator==(const Asked&) const = default;
        RackAsk ask() const { return {slabs, taken, air, dry_pct, wanted ? &*wanted : nullptr, today, drying_times}; }
    };
    Slow<Asked, std::vector<RackEntry>> reading_;
};

}  // namespace yb
