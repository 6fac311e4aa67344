# A pocket folded up from the lower edge, closed by its side flaps; the ticket in it is pulled out as the cover opens.
set -e
card=$1
hinge-lantern-cli new "$card" --sheet "outline 100,0 200,0 200,5 212,10 212,65 200,70 200,220 0,220 0,75 100,75 100,70 88,65 88,10 100,5; score 100,75 to 200,75 v held at 0; score 100,5 to 100,70 v held at 0; score 200,5 to 200,70 v held at 0; score 100,75 to 100,220 v" --set title="Night ticket" display_deg=120
hinge-lantern-cli sheet "$card" card "glue 94,40 on card/page-d at 6,35 turned 180; glue 206,40 on card/page-d at 94,35 turned 180; ground 150,150"
hinge-lantern-cli add "$card" piece --on card/page-d --sheet "outline 0,0 72,0 72,96 54,118 18,118 0,96; slide 36,2 on card/page-d at 50,2 turned 90 pulled 45 after 30 until 110"
