// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/settings_sheet.h"

#include <QAudioDevice>
#include <QComboBox>
#include <QFileDialog>
#include <QFileInfo>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QMediaDevices>
#include <QVBoxLayout>
#include <array>

#include "app/ui/pieces.h"
#include "app/ui/settings.h"
#include "app/ui/unit_box.h"

namespace fin::app {
namespace {

constexpr int kWide_px = 460;

/// A choice with what each stands for.
template <typename Value>
QComboBox* choiceOf(const char* name, const QString& said,
                    std::initializer_list<std::pair<QString, Value>> all, Value now) {
  auto* box = new QComboBox;
  box->setObjectName(name);
  box->setAccessibleName(said);
  for (const auto& [text, value] : all) box->addItem(text, static_cast<int>(value));
  box->setCurrentIndex(box->findData(static_cast<int>(now)));
  return box;
}

QComboBox* soundDevices() {
  auto* box = new QComboBox;
  box->setObjectName("soundDevice");
  box->setAccessibleName(QObject::tr("Sound goes to"));
  const auto devices = QMediaDevices::audioOutputs();
  if (devices.isEmpty()) {
    box->addItem(QObject::tr("This computer has no sound device"));
    box->setEnabled(false);
    box->setToolTip(QObject::tr("The beat is shown, not heard, and clips are silent."));
    return box;
  }
  box->addItem(QObject::tr("As the system"), QByteArray());
  for (const QAudioDevice& device : devices) box->addItem(device.description(), device.id());
  box->setCurrentIndex(std::max(box->findData(Settings::all().soundDevice()), 0));
  return box;
}

}  // namespace

SettingsSheet::SettingsSheet(QWidget* parent) : QFrame(parent) {
  setObjectName("settingsSheet");
  Settings& settings = Settings::all();
  look_ = choiceOf<Look>("look", tr("Look"),
                         {{tr("As the system"), Look::AsTheSystem},
                          {tr("Light, for daylight"), Look::Light},
                          {tr("Dark"), Look::Dark}},
                         settings.look());
  auto* text = choiceOf<int>("textSize", tr("Size of the text"),
                             {{tr("Usual"), 100}, {tr("Larger"), 115}, {tr("Largest"), 130}},
                             settings.textSize_percent());
  auto* units = choiceOf<UnitSystem>(
      "unitSystem", tr("Units"),
      {{tr("Metric: mm, m, g, °C"), UnitSystem::Metric}, {tr("US: in, ft, oz, °F"), UnitSystem::Imperial}},
      settings.units());
  auto* pulls = choiceOf<PullUnit>("pullUnit", tr("Speed of a pull"),
                                   {{tr("As the units: mm/s or in/s"), PullUnit::AsTheUnits},
                                    {tr("km/h"), PullUnit::KilometresPerHour},
                                    {tr("mph"), PullUnit::MilesPerHour},
                                    {tr("knots"), PullUnit::Knots}},
                                   settings.pullUnit());
  auto* sound = soundDevices();
  auto* byItself = choiceOf<bool>("byItself", tr("Clips for a planned pass"),
                                  {{tr("Measured as they come in"), true}, {tr("Left until you ask"), false}},
                                  settings.measuresByItself());
  connect(byItself, &QComboBox::currentIndexChanged, this,
          [byItself] { Settings::all().setMeasuresByItself(byItself->currentData().toBool()); });
  auto* folder = namedButton({}, "clipFolder");
  const auto tellFolder = [folder] {
    const QString path = Settings::all().clipFolder();
    folder->setText(path.isEmpty() ? tr("Choose …") : QFileInfo(path).fileName());
    folder->setToolTip(path);
  };
  tellFolder();
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(22, 18, 22, 18);
  layout->setSpacing(12);
  layout->addWidget(headingLabel(tr("Settings")));
  auto* form = new QFormLayout;
  form->setHorizontalSpacing(18);
  form->setVerticalSpacing(10);
  form->addRow(tr("Look"), look_);
  form->addRow(tr("Size of the text"), text);
  form->addRow(tr("Units"), units);
  form->addRow(tr("Speed of a pull"), pulls);
  form->addRow(tr("Clips are taken from"), folder);
  form->addRow(tr("Sound goes to"), sound);
  form->addRow(tr("Clips for a planned pass"), byItself);
  layout->addLayout(form);
  layout->addLayout(buildThresholds());
  QLabel* trouble = faintLabel(settings.trouble());
  trouble->setObjectName("settingsTrouble");
  trouble->setWordWrap(true);
  setLook(*trouble, "trouble", true);
  trouble->setVisible(!settings.trouble().isEmpty());
  layout->addWidget(trouble);
  layout->addWidget(faintLabel(tr("Logs always keep metric. Esc shuts this sheet.")));
  setMinimumWidth(kWide_px);

  connect(look_, &QComboBox::currentIndexChanged, this,
          [this] { Settings::all().setLook(static_cast<Look>(look_->currentData().toInt())); });
  connect(text, &QComboBox::currentIndexChanged, this,
          [text] { Settings::all().setTextSize_percent(text->currentData().toInt()); });
  connect(units, &QComboBox::currentIndexChanged, this,
          [units] { Settings::all().setUnits(static_cast<UnitSystem>(units->currentData().toInt())); });
  connect(pulls, &QComboBox::currentIndexChanged, this,
          [pulls] { Settings::all().setPullUnit(static_cast<PullUnit>(pulls->currentData().toInt())); });
  connect(sound, &QComboBox::currentIndexChanged, this,
          [sound] { Settings::all().setSoundDevice(sound->currentData().toByteArray()); });
  connect(folder, &QPushButton::clicked, this, [this, tellFolder] {
    const QString path =
        QFileDialog::getExistingDirectory(this, tr("Clips are taken from"), Settings::all().clipFolder());
    if (path.isEmpty()) return;
    Settings::all().setClipFolder(path);
    tellFolder();
  });
}

/// Where a motion takes its name, and how large the water before a fish is. As defined, but for a school that
/// has it another way.
QLayout* SettingsSheet::buildThresholds() {
  struct Line {
    const char* name;
    QString text;
    const char* unit;
    int decimals;
    QString heading = {};  ///< above it
  };
  // As kThresholdKeys has them.
  const std::array<Line, kThresholdKeys.size()> lines{
      Line{"glideFrom", tr("A fall glides from, along over down"), "", 2},
      Line{"flutterFrom", tr("A fall flutters from a rocking of"), "°", 0},
      Line{"holdsWithin", tr("A pause holds within, up or down"), "mm/s", 1},
      Line{"zoneHalf", tr("Ahead of the fish and behind it"), "mm", 0, tr("The water before a fish")},
      Line{"zoneHalfHeight", tr("Above and below"), "mm", 0},
      Line{"zoneInterval", tr("Twitched there every (0: as filmed)"), "s", 2}};
  auto* all = new QVBoxLayout;
  all->setSpacing(8);
  all->addWidget(headingLabel(tr("How motions are named")));
  auto* form = new QFormLayout;
  form->setHorizontalSpacing(18);
  QPushButton* defined = namedButton(tr("As defined"), "thresholdsAsDefined");
  std::vector<std::pair<UnitBox*, double Thresholds::*>> boxes;
  for (std::size_t i = 0; i < lines.size(); ++i) {
    const Line& line = lines[i];
    const ThresholdKey& threshold = kThresholdKeys[i];
    auto* box = new UnitBox(line.text, line.unit, {threshold.least, threshold.most, line.decimals});
    box->setObjectName(line.name);
    box->setUnits(Settings::all().units());
    box->show(Settings::all().thresholds().*threshold.value);
    if (!line.heading.isEmpty()) form->addRow(headingLabel(line.heading));
    form->addRow(line.text, box);
    boxes.emplace_back(box, threshold.value);
    connect(box, &UnitBox::edited, this, [value = threshold.value, defined](double metric) {
      Thresholds chosen = Settings::all().thresholds();
      chosen.*value = metric;
      Settings::all().setThresholds(chosen);
      enableOr(*defined, chosen != Thresholds{}, tr("They are as defined."));
    });
  }
  all->addLayout(form);
  enableOr(*defined, Settings::all().thresholds() != Thresholds{}, tr("They are as defined."));
  connect(defined, &QPushButton::clicked, this, [boxes, defined] {
    Settings::all().setThresholds({});
    for (const auto& [box, value] : boxes) box->show(Thresholds{}.*value);
    enableOr(*defined, false, tr("They are as defined."));
  });
  QPushButton* everywhere = namedButton(tr("Use for this log's passes too"), "thresholdsForAll");
  connect(everywhere, &QPushButton::clicked, this, &SettingsSheet::thresholdsForAll);
  auto* buttons = new QHBoxLayout;
  buttons->addWidget(defined);
  buttons->addWidget(everywhere);
  buttons->addStretch();
  all->addLayout(buttons);
  all->addWidget(faintLabel(tr("Clips taken in from now on are read this way; how? states it.")));
  return all;
}

QWidget* SettingsSheet::first() const {
  return look_;
}

}  // namespace fin::app
