// Lines to fill in, one below the other: names, picks and measures, each bound to the session.
#pragma once

#include <QWidget>

#include "app/kit/fields/field.h"

namespace yb {

class FieldForm : public QWidget {
    Q_OBJECT
  public:
    FieldForm(Session& session, const std::vector<TextField>& texts, const std::vector<PickField>& picks, const std::vector<Field>& fields,
              QWidget* parent = nullptr);
    ~FieldForm() override;
    bool empty() const { return updates_.empty(); }
    /// Shows what holds now, except where something is being typed.
    void show_values();

  private:
    std::vector<std::function<void()>> updates_;
};

}  // namespace yb
