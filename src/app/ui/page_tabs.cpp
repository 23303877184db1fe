// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/ui/page_tabs.h"

#include <QVBoxLayout>

#include "app/ui/pieces.h"

namespace fin::app {

PageTabs::PageTabs(QWidget* parent)
    : QWidget(parent), tabs_(new QButtonGroup(this)), row_(new QHBoxLayout), pages_(new QStackedWidget) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(16, 10, 16, 12);
  layout->setSpacing(10);
  row_->addStretch();
  layout->addLayout(row_);
  layout->addWidget(pages_, 1);
  connect(tabs_, &QButtonGroup::idClicked, this, &PageTabs::go);
}

void PageTabs::addPage(const QString& title, const char* name, QWidget* page) {
  auto* tab = namedButton(title, name);
  tab->setCheckable(true);
  row_->insertWidget(pages_->count(), tab);
  tabs_->addButton(tab, pages_->count());
  pages_->addWidget(page);
  if (pages_->count() == 1) go(0);
}

void PageTabs::go(int page) {
  pages_->setCurrentIndex(page);
  tabs_->button(page)->setChecked(true);
}

}  // namespace fin::app
