// What belongs to the shop and not to one job, in groups as people think of them: one at a time, beside its picture.
#pragma once

#include <map>
#include <variant>

#include <QScrollArea>

#include "app/kit/fields/field.h"

class QHBoxLayout;
class QPushButton;
class QVBoxLayout;

namespace yb {

class FieldForm;

/// A group of the shop's page.
struct ShopGroup {
    QString key, name, what;
    std::function<QWidget*(Session&)> picture;
    std::vector<TextField> texts;
    std::vector<PickField> picks;
    std::vector<Field> fields;
};

class ShopPage : public QWidget {
    Q_OBJECT
  public:
    explicit ShopPage(Session& session, QWidget* parent = nullptr);
    /// "air", "hands", "sled", "machines", "stock", "resins", "finishes", "sanders", "money".
    void show_group(const QString& key);

  Q_SIGNALS:
    void back();

  protected:
    void showEvent(QShowEvent* e) override;

  private:
    std::vector<ShopGroup> groups();
    void show_resin(const std::string& key);
    void fill_group(QHBoxLayout* row, const ShopGroup& group);
    void fill_resins(QHBoxLayout* row, const ShopGroup& group);
    void fill_finishes(QHBoxLayout* row, const ShopGroup& group);
    QVBoxLayout* shelf_of(const ShopGroup& group, const std::vector<std::pair<std::string, QString>>& names, const std::string& picked,
                          std::function<void(const std::string&)> pick);
    QScrollArea* scrolled(FieldForm* form);
    std::vector<std::string> resin_keys() const;
    void refresh();

    Session& session_;
    std::map<QString, QPushButton*> buttons_;
    QVBoxLayout* body_;
    QWidget* page_ = nullptr;
    FieldForm* form_ = nullptr;
    QString group_;
    std::string resin_, finish_;          ///< the one that is shown
    std::vector<std::string> built_for_;  ///< keys of the resins there were
};

/// Thicknesses of boards from a text such as `6, 9, 12 mm` or `1/4", 3/8"`, thinnest first; a sentence when
/// one can't be read.
std::variant<std::vector<double>, QString> read_boards(const QString& text, const Units& units);

}  // namespace yb
