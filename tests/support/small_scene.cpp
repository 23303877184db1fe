// SPDX-License-Identifier: GPL-3.0-or-later
#include "support/small_scene.h"

#include <unistd.h>
#include <cstdlib>
#include <fstream>
#include <iterator>
#include <stdexcept>

namespace fin::test {
namespace {

RehearsalScene smallScene(unsigned seed) {
  RehearsalScene scene;
  scene.camera.width_px = 480;
  scene.camera.height_px = 270;
  scene.camera.focal_px = 1200.0;
  scene.lure.length_mm = 80.0;
  scene.lure.height_mm = 22.0;
  scene.lure.width_mm = 16.0;
  scene.specks = 12;
  scene.ruler_mm = 300.0;
  scene.seed = seed;
  return scene;
}

}  // namespace

/// Never one that a test which was killed left behind.
TemporaryFolder::TemporaryFolder() {
  std::string name = (std::filesystem::temp_directory_path() / "agile-fin-test-XXXXXX").string();
  if (::mkdtemp(name.data()) == nullptr) throw std::runtime_error("no temporary folder can be made");
  path_ = name;
}

TemporaryFolder::~TemporaryFolder() {
  std::error_code ignored;
  std::filesystem::permissions(path_, std::filesystem::perms::owner_all, ignored);
  std::filesystem::remove_all(path_, ignored);
}

RehearsalScene smallPull(unsigned seed) {
  RehearsalScene scene = smallScene(seed);
  scene.camera.view = View::Top;
  scene.motion = StraightPull{
      .speed_mm_s = 240.0, .start_mm = -235.0, .wobble_Hz = 5.0, .wobble_deg = 30.0, .seed = seed};
  scene.length = Seconds(1.9);
  return scene;
}

RehearsalScene smallFall(unsigned seed) {
  RehearsalScene scene = smallScene(seed);
  scene.motion = Sink{.speed_mm_s = 150.0,
                      .timeConstant_s = 0.12,
                      .release_s = 0.1,
                      .from_mm = 110.0,
                      .bottom_mm = -150.0,
                      .aside_mm = -60.0,
                      .glide = 0.3,
                      .attitude_deg = 25.0};
  scene.length = Seconds(1.6);
  return scene;
}

RehearsalScene smallJerks(unsigned seed) {
  RehearsalScene scene = smallScene(seed);
  scene.motion = Jerks{.count = 3,
                       .first_s = 0.3,
                       .every_s = 0.9,
                       .start_mm = -190.0,
                       .height_mm = 20.0,
                       .advance_mm = 80.0,
                       .back_mm = 20.0,
                       .seed = seed};
  scene.length = Seconds(2.9);
  return scene;
}

RehearsalScene smallHops(unsigned seed) {
  RehearsalScene scene = smallScene(seed);
  scene.lure.tail_mm = 40.0;
  scene.motion = Hops{.count = 3,
                      .first_s = 0.4,
                      .every_s = 1.2,
                      .start_mm = -110.0,
                      .bottom_mm = -75.0,
                      .height_mm = 110.0,
                      .ahead_mm = 45.0,
                      .speed_mm_s = 170.0,
                      .attitude_deg = 12.0,
                      .kick_Hz = 6.0,
                      .kick_deg = 40.0,
                      .seed = seed};
  scene.length = Seconds(4.0);
  return scene;
}

void write(const std::filesystem::path& file, const std::string& text) {
  std::ofstream(file, std::ios::binary) << text;
}

std::string slurp(const std::filesystem::path& file) {
  std::ifstream in(file, std::ios::binary);
  return {std::istreambuf_iterator<char>(in), {}};
}

}  // namespace fin::test
