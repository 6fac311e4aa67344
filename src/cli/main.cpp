#include "cli/commands.h"

int main(int argc, char** argv) {
  return hinge::runCommandLine(argc, argv);
}
