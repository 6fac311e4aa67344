#!/usr/bin/env bash
# SPDX-License-Identifier: GPL-3.0-or-later
# Takes the pictures of the main views again from the demo data.
set -euo pipefail
cd "$(dirname "$0")/../.."
export QT_QPA_PLATFORM=offscreen
shot() { build/bin/hinge-lantern --shot "docs/screenshots/$1" "${@:2}" 2>/dev/null; echo "docs/screenshots/$1"; }
shot build.png --open 118 --select s3 demo/night-market.hinge
shot mistakes.png --finding 3 demo/night-market-mistakes.hinge
shot flat-piece.png --open 112 --select s1 demo/night-market.hinge
shot adding-dark.png --dark --open 150 --adding demo/night-market.hinge
shot size.png --place size demo/night-market.hinge
shot sheet.png --place size demo/house-fronts.hinge
shot dress.png --place dress --face card/page-b --open 105 demo/night-market.hinge
shot toppers-dark.png --dark --place dress --face card/page-b --topper t1 --open 118 demo/canal-houses.hinge
shot cut.png --place cut --select s1 demo/canal-houses.hinge
shot cut-machine.png --place cut --machine --select s1 demo/tea-chests.hinge
shot make.png --place make --step 20 demo/canal-houses.hinge
bench=$(mktemp -d)
cp demo/canal-houses.hinge "$bench/"
XDG_DATA_HOME="$bench" shot bench.png --place make --bench 8 "$bench/canal-houses.hinge"
rm -r "$bench"
shot shelf.png --shelf gutter demo/night-market.hinge
shot new.png --new
shot pull.png --open 150 --select s1 demo/waving-boatmen.hinge
shot free-piece.png --open 90 --select s1 demo/steps-in-the-fold.hinge --hand hold --stroke 66,30,68,30
shot joining.png --dark --open 95 --select s2 demo/two-sheet-ridge.hinge --hand join --stroke 5,40,440,420
shot tracing.png --open 120 --select s1 demo/sail-to-raise.hinge --trace demo/drawings/sail-template.png --hand trace
build/bin/hinge-lantern-cli gallery $(ls demo/*.hinge | grep -v mistakes) --columns 6 --size 300 -o docs/screenshots/gallery.png
echo docs/screenshots/gallery.png
python3 docs/constructions.py
