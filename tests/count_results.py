# SPDX-License-Identifier: GPL-3.0-or-later
"""Adds up the totals that the Qt Test programs left in a folder and prints one closing line."""
import pathlib, re, sys

passed = failed = skipped = 0
for report in sorted(pathlib.Path(sys.argv[1]).glob("*.txt")):
    totals = re.findall(r"Totals: (\d+) passed, (\d+) failed, (\d+) skipped", report.read_text(errors="replace"))
    if not totals:
        print(f"{report.name}: the program did not finish", file=sys.stderr)
        failed += 1
    for p, f, s in totals:
        passed, failed, skipped = passed + int(p), failed + int(f), skipped + int(s)
print(f"{passed} passed, {failed} failed, {skipped} skipped")
sys.exit(1 if failed or not passed else 0)
