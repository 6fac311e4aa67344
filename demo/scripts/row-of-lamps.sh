# A zigzag longer than its paper: the second sheet is glued on a tab of the first, which is a fold of the row.
set -e
card=$1
hinge-lantern-cli new "$card" --unit in --sheet "size 8 x 4 3/4; score 2 v, 4 m, 6 v; tab right 1/2 m opens to 180" --set title="Row of lamps" display_deg=80
hinge-lantern-cli sheet "$card" card/2 "size 6 x 4 3/4; score 2 v, 4 m; glue 1/4,2 3/8 on card/page-e at 1/4,2 3/8"
hinge-lantern-cli sheet "$card" card "opening disc 1,3 across 3/4; opening disc 5,3 across 3/4"
hinge-lantern-cli sheet "$card" card/2 "opening disc 3,3 across 3/4"
