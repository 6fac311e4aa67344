# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=night-blue
hinge-lantern-cli set "$card" s1 paper=lamp-gold
hinge-lantern-cli set "$card" s2 paper=brick-red
hinge-lantern-cli dress "$card" card/page-b --for part --papers plum night-sky
hinge-lantern-cli dress "$card" card/page-a-back --for part --papers plum
hinge-lantern-cli dress "$card" s1/wall-a --for part --papers lamp-dots
hinge-lantern-cli dress "$card" s1/near-a-back --for part --papers lamp-dots
hinge-lantern-cli dress "$card" s2/figure --for part --papers quay-bricks
hinge-lantern-cli topper "$card" card/page-b moon --paper rice --set "at 152 112"
