# A page with a small card of its own that a hand opens, and a dial with a pointer over it that click on by steps.
set -e
card=$1
small=$card.small
hinge-lantern-cli new "$small" --width 46 --height 70 --force --set title="Lantern boat"
hinge-lantern-cli add "$small" vfold --on gutter
hinge-lantern-cli new "$card" --width 150 --height 200 --set title="Harbour album" display_deg=180
hinge-lantern-cli add "$card" card-on-face --on card/page-b --card "$small" --set position=60 up=60
hinge-lantern-cli add "$card" piece --on card/page-a --sheet "outline 22,0 33.6,3.2 42.1,11.7 45.3,23.3 42.1,35 33.6,43.4 22,46.6 10.4,43.4 1.9,35 -1.3,23.3 1.9,11.7 10.4,3.2; pivot 22,23.3 on card/page-a at 100,70 spun -150 to 150 step 30"
hinge-lantern-cli add "$card" piece --on card/page-a --sheet "outline 0,0 8,0 8,30 4,38 0,30; pivot 4,6 on card/page-a at 100,70 spun -90 to 90 step 45 over 1"
rm "$small"
