# A folded card with a flap cut into its right page: a hand lifts it and reads what stands below.
set -e
card=$1
hinge-lantern-cli new "$card" --sheet "size 240 x 150; score 120 v" --set title="Keeper's message" display_deg=110
hinge-lantern-cli sheet "$card" card "cut 150,104 to 150,44; cut 150,44 to 210,44; cut 210,44 to 210,104; score 150,104 to 210,104 v lifted from 180 to 40; opening disc 60,90 across 36; opening ring 60,90 from 24 to 28 towards -90 wide 150; round 240,150 by 25; round 0,150 by 25"
