// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QFile>
#include <QStringList>
#include <vector>

namespace fin::test {

/// The rows of the table under a heading of docs/terms.md, without its head.
inline std::vector<QStringList> tableOf(const QString& heading) {
  QFile file(FIN_TERMS);
  std::vector<QStringList> out;
  if (!file.open(QIODevice::ReadOnly)) return out;
  bool here = false;
  int lines = 0;
  for (const QString& line : QString::fromUtf8(file.readAll()).split('\n')) {
    if (line.startsWith("## ")) here = line == "## " + heading;
    if (!here || !line.startsWith('|') || ++lines <= 2) continue;
    QStringList cells;
    for (const QString& cell : line.mid(1, line.size() - 2).split('|')) cells += cell.trimmed();
    out.push_back(cells);
  }
  return out;
}

}  // namespace fin::test
