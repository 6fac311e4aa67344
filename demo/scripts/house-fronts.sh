# A concertina whose sections fold the other way: doors and a balcony stand out of the row of houses.
set -e
card=$1
hinge-lantern-cli new "$card" --sheet "size 360 x 150; score 90 v, 180 m, 270 v" --set title="House fronts" display_deg=75
hinge-lantern-cli sheet "$card" card "reverse 68 to 112 between 25 and 70"
hinge-lantern-cli sheet "$card" card "reverse 160 to 200 between 60 and 110"
hinge-lantern-cli sheet "$card" card "reverse 252 to 282 between 20 and 60; opening 265,32 to 275,48"
