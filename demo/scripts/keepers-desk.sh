# A box with a middle wall and a wall more on each side, like the drawers of a desk, and the lamp keeper on the fold before it.
set -e
card=$1
hinge-lantern-cli new "$card" --width 140 --height 190 --set title="Keeper's desk"
hinge-lantern-cli add "$card" closed-box --on gutter --set position=84 length=50 a=44 e=44 l=44 h=40 lid=2 wall=1 inner=1
hinge-lantern-cli add "$card" standing-figure --on gutter --set position=20 shape=3 width=30 height=70 foot=32
