// A plot of the book: readings as dots, what was expected as lines, a band where it is only known about; in paper and ink.
#pragma once

#include <QtCharts/QChartView>

#include "core/shop/book/plots.h"

namespace yb {

class BookChart : public QChartView {
    Q_OBJECT
  public:
    explicit BookChart(QWidget* parent = nullptr);
    void show_plot(const BookPlot& plot);
    /// Points as they are drawn: no more than the width can show, the highest and the lowest of each column kept.
    static std::vector<std::pair<double, double>> thinned(const std::vector<std::pair<double, double>>& points, int columns);

  Q_SIGNALS:
    /// A dot was clicked: the book's line it came from.
    void line_picked(qint64 id);
};

}  // namespace yb
