// A line to type a measure on: any unit at any time, shown in the maker's own, nothing typed ever thrown away.
#pragma once

#include <functional>
#include <optional>

#include <QLabel>
#include <QLineEdit>
#include <QWidget>

#include "core/ground/measure/measure.h"

namespace yb {

class MeasureField : public QWidget {
    Q_OBJECT
  public:
    /// @param name object name of the line edit, for tests and for finding
    MeasureField(const QString& name, Kind kind, QWidget* parent = nullptr);
    ~MeasureField() override;

    /// Shows a value unless the maker is typing or what was typed can't be read yet.
    void show_value(std::optional<double> value, const Units& units);
    /// An empty text means "not read" instead of being wrong.
    void allow_empty(bool allow) { may_be_empty_ = allow; }
    /// Least and most that are taken, in the program's unit.
    void set_range(double low, double high) { low_ = low, high_ = high; }
    QLineEdit* line() { return line_; }

  Q_SIGNALS:
    void committed(std::optional<double> value);

  private:
    void commit();
    void wrong(const QString& sentence);
    /// What a text in another unit comes to, while it is typed.
    void understood(const QString& text);
    void show_unit();
    void hint(const QString& text, const QColor& ink);

    Kind kind_;
    Units units_;
    QLineEdit* line_;
    QLabel *hint_, *unit_;
    std::optional<double> value_;
    bool may_be_empty_ = false, bad_ = false;
    double low_ = -1e9, high_ = 1e9;
};

}  // namespace yb
