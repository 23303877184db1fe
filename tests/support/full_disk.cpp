// SPDX-License-Identifier: GPL-3.0-or-later
#include "support/full_disk.h"

#include <sqlite3.h>

#include <limits>
#include <memory>
#include <new>

namespace fin::test {
namespace {

constexpr std::size_t kPlenty = std::numeric_limits<std::size_t>::max();

std::size_t left = kPlenty;
bool wasRefused = false;

bool takeOne() {
  if (left == 0) {
    wasRefused = true;
    return false;
  }
  if (left != kPlenty) --left;
  return true;
}

/// A file of the real file system with its methods looked over. SQLite hands over the room for it.
struct WatchedFile {
  sqlite3_file base;
  sqlite3_io_methods methods;
  sqlite3_file* real;
};

sqlite3_file* realOf(sqlite3_file* file) {
  return reinterpret_cast<WatchedFile*>(file)->real;
}
const sqlite3_io_methods& on(sqlite3_file* file) {
  return *realOf(file)->pMethods;
}

sqlite3_io_methods watchedMethods(int version) {
  sqlite3_io_methods m{};
  m.iVersion = version < 1 ? version : 1;  // no shared memory, no mapping: everything goes through here
  m.xClose = [](sqlite3_file* f) {
    const int done = on(f).xClose(realOf(f));
    ::operator delete(realOf(f));
    return done;
  };
  m.xRead = [](sqlite3_file* f, void* to, int n, sqlite3_int64 at) {
    return on(f).xRead(realOf(f), to, n, at);
  };
  m.xWrite = [](sqlite3_file* f, const void* from, int n, sqlite3_int64 at) {
    return takeOne() ? on(f).xWrite(realOf(f), from, n, at) : SQLITE_FULL;
  };
  m.xTruncate = [](sqlite3_file* f, sqlite3_int64 n) { return on(f).xTruncate(realOf(f), n); };
  m.xSync = [](sqlite3_file* f, int flags) {
    return takeOne() ? on(f).xSync(realOf(f), flags) : SQLITE_IOERR_FSYNC;
  };
  m.xFileSize = [](sqlite3_file* f, sqlite3_int64* n) { return on(f).xFileSize(realOf(f), n); };
  m.xLock = [](sqlite3_file* f, int level) { return on(f).xLock(realOf(f), level); };
  m.xUnlock = [](sqlite3_file* f, int level) { return on(f).xUnlock(realOf(f), level); };
  m.xCheckReservedLock = [](sqlite3_file* f, int* out) { return on(f).xCheckReservedLock(realOf(f), out); };
  m.xFileControl = [](sqlite3_file* f, int op, void* arg) { return on(f).xFileControl(realOf(f), op, arg); };
  m.xSectorSize = [](sqlite3_file* f) { return on(f).xSectorSize(realOf(f)); };
  m.xDeviceCharacteristics = [](sqlite3_file* f) { return on(f).xDeviceCharacteristics(realOf(f)); };
  return m;
}

sqlite3_vfs* realVfs = nullptr;
sqlite3_vfs watched{};

int openWatched(sqlite3_vfs*, const char* name, sqlite3_file* file, int flags, int* outFlags) {
  auto* out = reinterpret_cast<WatchedFile*>(file);
  out->base.pMethods = nullptr;
  out->real = static_cast<sqlite3_file*>(::operator new(static_cast<std::size_t>(realVfs->szOsFile)));
  const int done = realVfs->xOpen(realVfs, name, out->real, flags, outFlags);
  if (done != SQLITE_OK || out->real->pMethods == nullptr) {
    ::operator delete(out->real);
    return done;
  }
  out->methods = watchedMethods(out->real->pMethods->iVersion);
  out->base.pMethods = &out->methods;
  return SQLITE_OK;
}

}  // namespace

FullDisk::FullDisk(std::size_t writesLeft) {
  realVfs = sqlite3_vfs_find(nullptr);
  watched = *realVfs;
  watched.pNext = nullptr;
  watched.zName = "full-disk";
  watched.szOsFile = sizeof(WatchedFile);
  watched.xOpen = openWatched;
  sqlite3_vfs_register(&watched, 1);
  fillAfter(writesLeft);
}

FullDisk::~FullDisk() {
  empty();
  sqlite3_vfs_unregister(&watched);
  sqlite3_vfs_register(realVfs, 1);
}

void FullDisk::fillAfter(std::size_t writesLeft) {
  left = writesLeft;
  wasRefused = false;
}

void FullDisk::empty() {
  left = kPlenty;
}

bool FullDisk::refused() {
  return wasRefused;
}

}  // namespace fin::test
