# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=plum
hinge-lantern-cli set "$card" s1 paper=lamp-gold
hinge-lantern-cli set "$card" s2 paper=brick-red
hinge-lantern-cli set "$card" s3 paper=lamp-gold
hinge-lantern-cli set "$card" s4 paper=brick-red
hinge-lantern-cli dress "$card" card/page-a --for part --papers tar quay-bricks
hinge-lantern-cli dress "$card" card/page-a-back --for part --papers tar
hinge-lantern-cli dress "$card" s2/panel-2 --for part --papers quay-bricks
hinge-lantern-cli dress "$card" s2/panel-2-back --for part --papers quay-bricks
hinge-lantern-cli dress "$card" s3/panel-2 --for part --papers lamp-dots
hinge-lantern-cli dress "$card" s4/panel-2 --for part --papers quay-bricks
hinge-lantern-cli topper "$card" card/page-a star --paper lamp-gold --set "at 104 104"
