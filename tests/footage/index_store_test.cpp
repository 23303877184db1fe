// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/footage/index_store.h"

#include <gtest/gtest.h>

#include <fstream>
#include <sstream>

#include "core/footage/clip.h"
#include "support/numbered_film.h"
#include "support/small_scene.h"

namespace fin {
namespace {

namespace fs = std::filesystem;

class IndexStore : public testing::Test {
 protected:
  void SetUp() override { test::film(clip(), {.frames = 60}); }
  fs::path clip() const { return folder_ / "a.mp4"; }
  fs::path kept() const { return folder_ / "kept"; }
  fs::path fileFor(const fs::path& clip) const { return kept() / (fingerprintOf(clip)->sha256 + ".index"); }

  test::TemporaryFolder folder_;
};

TEST_F(IndexStore, GivesBackTheIndexOfAClipThatWasLookedThroughBefore) {
  const auto first = Clip::open(clip(), {.indexFolder = kept()});
  ASSERT_TRUE(first);
  ASSERT_TRUE(fs::exists(fileFor(clip())));
  // What is read the second time is the kept one: changed by hand it shows.
  std::ifstream in(fileFor(clip()), std::ios::binary);
  const auto index = ClipIndex::readFrom(in);
  ASSERT_TRUE(index);
  std::ofstream(fileFor(clip()), std::ios::binary) << [&] {
    std::ostringstream out;
    index->byField().writeTo(out);
    return out.str();
  }();
  const auto second = Clip::open(clip(), {.indexFolder = kept()});
  ASSERT_TRUE(second);
  EXPECT_EQ((*second)->index().frameCount(), 2 * (*first)->index().frameCount());
}

TEST_F(IndexStore, LooksThroughAClipAnewThatChangedOnDisk) {
  ASSERT_TRUE(Clip::open(clip(), {.indexFolder = kept()}));
  test::film(clip(), {.frames = 45});
  const auto again = Clip::open(clip(), {.indexFolder = kept()});
  ASSERT_TRUE(again);
  EXPECT_EQ((*again)->index().frameCount(), 45U);
}

TEST_F(IndexStore, PassesOverAnIndexThatIsCutOff) {
  ASSERT_TRUE(Clip::open(clip(), {.indexFolder = kept()}));
  fs::resize_file(fileFor(clip()), fs::file_size(fileFor(clip())) - 9);
  EXPECT_FALSE(keptIndex(kept(), *fingerprintOf(clip())));
  const auto again = Clip::open(clip(), {.indexFolder = kept()});
  ASSERT_TRUE(again);
  EXPECT_EQ((*again)->index().frameCount(), 60U);
}

TEST_F(IndexStore, OpensTheClipAndSaysSoWhenTheDiskFills) {
  fs::create_directories(kept());
  fs::path part = fileFor(clip());
  part += ".part";
  fs::create_symlink("/dev/full", part);
  const auto opened = Clip::open(clip(), {.indexFolder = kept()});
  ASSERT_TRUE(opened);
  EXPECT_EQ((*opened)->index().frameCount(), 60U);
  ASSERT_FALSE((*opened)->info().warnings.empty());
  EXPECT_NE((*opened)->info().warnings.front().find("disk full"), std::string::npos);
  EXPECT_FALSE(fs::exists(fileFor(clip())));
}

TEST_F(IndexStore, ReportsProgressAndStopsWhenTold) {
  std::stop_source stop;
  double last = 0.0;
  const auto opened = Clip::open(clip(), {kept(), {stop.get_token(), [&](double share) {
                                                     EXPECT_GE(share, last);
                                                     last = share;
                                                     if (share > 0.3) stop.request_stop();
                                                   }}});
  ASSERT_FALSE(opened);
  EXPECT_EQ(opened.error().code, ErrorCode::Cancelled);
  EXPECT_FALSE(fs::exists(fileFor(clip())));
}

}  // namespace
}  // namespace fin
