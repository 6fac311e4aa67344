# A sail traced from a paper template (demo/drawings/sail-template.png), with a tab at its foot on which a hand raises it.
set -e
card=$1
hinge-lantern-cli new "$card" --width 130 --height 150 --set title="Sail to raise" display_deg=110
hinge-lantern-cli add "$card" piece --on gutter --sheet "outline 0,0 76,0 82,28 70,64 42,96 20,74 6,38; tab at 38,0 10 v; fold 40,10 lifted from 180 to 70; glue 41,5 on card/page-b at 78,20"
