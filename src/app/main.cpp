// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/start.h"

// Nothing else stands here: it is compiled last, when there is nothing left to do beside it.
int main(int argc, char** argv) {
  return hinge::startWindow(argc, argv);
}
