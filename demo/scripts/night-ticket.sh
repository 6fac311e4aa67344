# A pocket folded up from the lower edge, closed by its side flaps; the ticket in it is pulled out by hand.
set -e
card=$1
hinge-lantern-cli new "$card" --sheet "outline 98,0 196,0 196,5 208,10 208,65 196,70 196,220 0,220 0,75 98,75 98,70 86,65 86,10 98,5; score 98,75 to 196,75 v held at 0; score 98,5 to 98,70 v held at 0; score 196,5 to 196,70 v held at 0; score 98,75 to 98,220 v" --set title="Night ticket" display_deg=120
hinge-lantern-cli sheet "$card" card "glue 92,40 on card/page-d at 6,35 turned 180; glue 202,40 on card/page-d at 92,35 turned 180; ground 150,150"
hinge-lantern-cli add "$card" piece --on card/page-d --sheet "outline 0,0 72,0 72,96 54,118 18,118 0,96; slide 36,2 on card/page-d at 49,2 turned 90 pushed 0 to 45"
