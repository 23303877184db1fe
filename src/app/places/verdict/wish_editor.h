// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QCheckBox>
#include <QComboBox>
#include <QListWidget>
#include <QPushButton>
#include <QWidget>

#include "app/controllers/line_up.h"
#include "app/ui/unit_box.h"
#include "core/comparison/wishes.h"

class QFormLayout;

namespace fin::app {

/// What counts, in which direction and how much: a list, and the chosen line spelled out below it.
class WishEditor : public QWidget {
  Q_OBJECT

 public:
  /// `curves`: points can be set.
  WishEditor(const LineUp& lineUp, bool curves, QWidget* parent = nullptr);
  /// `judgements`: what else can be counted, and its values.
  void show(std::vector<Wish> wishes, const Judgements& judgements);
  void setUnits(UnitSystem units);

 signals:
  void edited(const QString& what, const std::vector<Wish>& wishes);

 private:
  [[nodiscard]] int chosen() const { return list_->currentRow(); }
  void fillList();
  void fillChoice();
  /// Makes the lines below anew, in the units of the chosen reading.
  void spellOut();
  void fillForm();
  void buildClass(QFormLayout& form, const Wish& wish);
  void buildWanted(QFormLayout& form, const Wish& wish, const char* unit);
  void buildWeight(QFormLayout& form);
  void buildSpeed(QFormLayout& form, const Wish& wish);
  void buildCurve(QFormLayout& form, const Wish& wish, const char* unit);
  void change(const QString& what, const std::function<void(Wish&)>& change);
  [[nodiscard]] PointsCurve curveOf(const Wish& wish) const;

  const LineUp& lineUp_;
  bool curves_;
  UnitSystem units_ = UnitSystem::Metric;
  std::vector<Wish> wishes_;
  Judgements judgements_;
  QListWidget* list_;
  QComboBox* add_;
  QPushButton* remove_;
  QWidget* form_ = nullptr;
  std::optional<std::tuple<ReadingId, std::string, Direction, bool>>
      spelled_;  ///< what the form was made for
  QComboBox* wanted_ = nullptr;
  UnitBox* target_ = nullptr;
  QComboBox* weight_ = nullptr;
  QComboBox* speed_ = nullptr;
  QCheckBox* ownCurve_ = nullptr;
  UnitBox* none_ = nullptr;
  UnitBox* half_ = nullptr;
  UnitBox* full_ = nullptr;
};

}  // namespace fin::app
