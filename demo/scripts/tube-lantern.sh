# A strip of the maker's own with four scores, closed to a tube and glued astride the fold: it stands up as a lantern.
set -e
card=$1
hinge-lantern-cli new "$card" --width 110 --height 150 --set title="Tube lantern" display_deg=90
hinge-lantern-cli add "$card" piece --on gutter --sheet "size 150 x 60; score 35 v, 70 v, 105 v, 140 v; opening 80,12 to 95,48; opening 115,12 to 130,48; glue 17.5,30 on card/page-a right edge on fold and centred on fold; glue 52.5,30 on card/page-b left edge on fold and centred on fold; glue 145,30 on s1/panel-1 at 5,30"
