// A resin's label beside its model: how far it is cured by the hour, held at 25 °C, and the times that its label gives on that line.
#pragma once

#include <optional>
#include <vector>

#include <QWidget>

#include "app/ground/session/session.h"
#include "core/steps/pour/pour.h"

namespace yb {

class ResinPlot : public QWidget {
    Q_OBJECT
  public:
    ResinPlot(Session& session, std::string key, QWidget* parent = nullptr);
    /// In words: for those who can't see it and for tests.
    QString read_out() const;
    QSize sizeHint() const override;

  protected:
    void paintEvent(QPaintEvent* e) override;

  private:
    void refresh();

    Session& session_;
    std::string key_;
    std::optional<Resin> of_;
    std::vector<std::pair<double, double>> cures_;  ///< h, share cured
    std::vector<LabelRow> rows_;
};

}  // namespace yb
