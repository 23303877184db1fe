// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <sys/wait.h>
#include <cstdlib>
#include <string>

#include "support/small_scene.h"

namespace fin::test {

/// What a run of the command line gave.
struct Ran {
  int exit = -1;
  std::string out;
  std::string err;
};

inline Ran runCli(const TemporaryFolder& folder, const std::string& arguments) {
  const std::string command = std::string(FIN_CLI) + " " + arguments + " >" + (folder / "out").string() +
                              " 2>" + (folder / "err").string();
  const int status = std::system(command.c_str());
  return {WIFEXITED(status) ? WEXITSTATUS(status) : -1, slurp(folder / "out"), slurp(folder / "err")};
}

}  // namespace fin::test
