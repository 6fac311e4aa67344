# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=moss
hinge-lantern-cli set "$card" s1 paper=brick-red
hinge-lantern-cli set "$card" s2 paper=lamp-gold
hinge-lantern-cli dress "$card" card/page-b --for part --papers shell deck-planks
hinge-lantern-cli dress "$card" card/page-a-back --for part --papers shell
hinge-lantern-cli dress "$card" s1/wall-a --for part --papers quay-bricks
hinge-lantern-cli dress "$card" s1/near-a-back --for part --papers quay-bricks
hinge-lantern-cli topper "$card" card/page-b lamp-post --paper tar --set "at 152 112"
