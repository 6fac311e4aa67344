# Two zigzags pushed into one another, panel by panel, with slanted tops.
set -e
card=$1
hinge-lantern-cli new "$card" --sheet "outline 0,0 200,0 200,90 150,110 100,90 50,110 0,90; score 50 v, 100 m, 150 v" --set title="Two quays" display_deg=80
hinge-lantern-cli add "$card" piece --on card/page-a --sheet "outline 0,0 200,0 200,104 150,84 100,104 50,84 0,104; score 50 m, 100 v, 150 m; slot 25,47 on card/page-a at 25,50 turned 90; slot 75,47 on card/page-b at 25,50 turned 90; slot 125,47 on card/page-c at 25,50 turned 90; slot 175,47 on card/page-d at 25,50 turned 90"
