// What belongs to the shop and not to one job: sled and cutter, boards, resins as their labels say, hours.
#pragma once

#include <QScrollArea>

#include "app/kit/fields/field.h"

namespace yb {

class FieldForm;

class ShopPage : public QScrollArea {
    Q_OBJECT
  public:
    explicit ShopPage(Session& session, QWidget* parent = nullptr);

  Q_SIGNALS:
    void back();

  private:
    void rebuild();
    void refresh();

    Session& session_;
    std::vector<FieldForm*> forms_;
    std::vector<std::string> built_for_;  ///< keys of the resins shown
};

/// Thicknesses of boards from a text such as `6, 9, 12 mm` or `1/4", 3/8"`, thinnest first; a sentence when
/// one can't be read.
std::variant<std::vector<double>, QString> read_boards(const QString& text, const Units& units);

}  // namespace yb
