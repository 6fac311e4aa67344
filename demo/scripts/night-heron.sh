# Two wings on pins, spread by a slider that a strap from the other page pulls: each thing says over how many others it lies.
set -e
card=$1
hinge-lantern-cli new "$card" --width 120 --height 160 --set title="Night heron" display_deg=180
hinge-lantern-cli add "$card" piece --on card/page-b --sheet "size 40 x 50; slide 20,0 on card/page-b at 80,40 turned 90 most 40" || [ $? = 1 ] # not finished yet
hinge-lantern-cli add "$card" piece --on gutter --sheet "size 74 x 24; score 7 v, 67 v; glue 3.5,12 on card/page-a at 80,13.5 turned -90; glue 70.5,12 on s1/panel-1 at 20,8.5 turned 90" || [ $? = 1 ] # not finished yet
hinge-lantern-cli add "$card" piece --on card/page-b --sheet "outline 0,0 14,0 14,30 4,50 0,40; pivot 7,6 on card/page-b at 44,66 turned 20 over 1" || [ $? = 1 ] # not finished yet
hinge-lantern-cli add "$card" piece --on card/page-b --sheet "outline 0,0 14,0 14,40 10,50 0,30; pivot 7,6 on card/page-b at 116,66 turned -20 over 1" || [ $? = 1 ] # not finished yet
hinge-lantern-cli add "$card" piece --on card/page-b --sheet "size 44 x 8; pivot 4,4 on s1/panel-1 at 8,40 turned 160 over 2; pivot 40,4 on s3/panel-1 at 7,24 over 2" || [ $? = 1 ] # not finished yet
hinge-lantern-cli add "$card" piece --on card/page-b --sheet "size 44 x 8; pivot 4,4 on s1/panel-1 at 32,40 turned 20 over 2; pivot 40,4 on s4/panel-1 at 7,24 over 2"
