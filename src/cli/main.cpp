// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/commands.h"

int main(int argc, char** argv) {
  return hinge::runCommandLine(argc, argv);
}
