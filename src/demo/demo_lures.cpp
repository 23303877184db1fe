// SPDX-License-Identifier: GPL-3.0-or-later
#include "demo/demo_lures.h"

namespace fin {

LureBuild skrellBuild() {
  return {.length_mm = 95.0,
          .height_mm = 21.0,
          .width_mm = 13.0,
          .lip_mm = 12.0,
          .back = {52.0, 84.0, 66.0},
          .belly = {226.0, 222.0, 206.0},
          .bands = {178.0, 66.0, 42.0},
          .bandCount = 5,
          .shape = LureShape::Jerkbait};
}

LureBuild pellowBuild() {
  return {.length_mm = 110.0,
          .height_mm = 24.0,
          .width_mm = 15.0,
          .lip_mm = 10.0,
          .back = {44.0, 58.0, 104.0},
          .belly = {236.0, 228.0, 200.0},
          .bands = {30.0, 40.0, 70.0},
          .bandCount = 7,
          .shape = LureShape::Jerkbait};
}

LureBuild vintoBuild() {
  return {.length_mm = 70.0,
          .height_mm = 18.0,
          .width_mm = 13.0,
          .tail_mm = 42.0,
          .back = {74.0, 98.0, 58.0},
          .belly = {216.0, 206.0, 152.0},
          .bands = {134.0, 74.0, 40.0},
          .bandCount = 4,
          .shape = LureShape::PaddleTail};
}

LureBuild mirkBuild() {
  return {.length_mm = 66.0,
          .height_mm = 15.0,
          .width_mm = 12.0,
          .tail_mm = 38.0,
          .back = {78.0, 58.0, 100.0},
          .belly = {206.0, 190.0, 206.0},
          .bands = {226.0, 118.0, 56.0},
          .bandCount = 3,
          .shape = LureShape::CurlTail};
}

LureBuild obligBuild() {
  return {.length_mm = 64.0,
          .height_mm = 8.0,
          .width_mm = 24.0,
          .back = {178.0, 136.0, 62.0},
          .belly = {196.0, 190.0, 176.0},
          .bands = {158.0, 36.0, 32.0},
          .bandCount = 2,
          .shape = LureShape::Spoon};
}

LureBuild oblagBuild() {
  LureBuild build = obligBuild();
  build.back = {150.0, 158.0, 164.0};
  build.bands = {36.0, 66.0, 130.0};
  build.bandCount = 3;
  return build;
}

LureBuild tavverBuild() {
  return {.length_mm = 58.0,
          .height_mm = 17.0,
          .width_mm = 14.0,
          .tail_mm = 30.0,
          .lip_mm = 9.0,
          .back = {38.0, 48.0, 70.0},
          .belly = {150.0, 160.0, 176.0},
          .bands = {206.0, 192.0, 84.0},
          .bandCount = 4,
          .shape = LureShape::BladedBait};
}

LureBuild haspBuild() {
  LureBuild build = tavverBuild();
  build.length_mm = 60.0;
  build.back = {96.0, 34.0, 34.0};
  build.belly = {196.0, 120.0, 84.0};
  build.bands = {42.0, 34.0, 34.0};
  build.bandCount = 3;
  return build;
}

LureBuild withSkirtOpen(LureBuild build) {
  build.tail_mm = 0.0;
  build.skirt_mm = 46.0;
  return build;
}

}  // namespace fin
