# A card in the shape of a barge: one sheet folded at its middle, bow and stern drawn with the hand.
set -e
card=$1
hinge-lantern-cli new "$card" --sheet "size 240 x 120; score 120 v" --set title="Barge at dusk" display_deg=100
hinge-lantern-cli sheet "$card" card "kink 60,120; kink 180,120; pull corner 0,120 to 0,80; pull corner 240,120 to 240,80; pull corner 60,120 to 40,104; pull corner 180,120 to 200,104; snip 0,0 by 24; snip 240,0 by 24; opening disc 60,60 across 30; opening ring 60,60 from 20 to 24 towards 90 wide 120; alike"
