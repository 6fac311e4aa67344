# A ridge over the fold from two sheets: the second is joined to the first by a tab along the ridge.
set -e
card=$1
hinge-lantern-cli new "$card" --width 110 --height 150 --set title="Two-sheet ridge" display_deg=100
hinge-lantern-cli add "$card" piece --on gutter --sheet "size 60 x 80; score 10 m; glue 5,40 on card/page-a right edge up to 50 from fold and centred on fold by face" || [ $? = 1 ] # not finished yet
hinge-lantern-cli sheet "$card" s1 "opening disc 38,40 across 22" || [ $? = 1 ] # not finished yet
hinge-lantern-cli add "$card" piece --on gutter --sheet "size 60 x 80; score 50 m; opening disc 22,40 across 22" || [ $? = 1 ] # not finished yet
hinge-lantern-cli sheet "$card" s2 "tab at 0,40 10 m; glue 65,40 on card/page-b left edge up to 50 from fold and centred on fold by face" || [ $? = 1 ] # not finished yet
hinge-lantern-cli sheet "$card" s2 "glue 5,40 on s1/panel-2-back at 5,40 by face turned 180"
