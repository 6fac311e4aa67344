# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=moss
hinge-lantern-cli set "$card" s1 paper=brick-red
hinge-lantern-cli set "$card" s2 paper=lamp-gold
hinge-lantern-cli set "$card" s3 paper=shell
hinge-lantern-cli dress "$card" card/page-b --for part --papers rice deck-planks
hinge-lantern-cli dress "$card" card/page-a-back --for part --papers rice
hinge-lantern-cli dress "$card" s1/panel-2 --for part --papers quay-bricks
hinge-lantern-cli dress "$card" s1/panel-3-back --for part --papers quay-bricks
hinge-lantern-cli dress "$card" s2/panel-2 --for part --papers lamp-dots
hinge-lantern-cli dress "$card" s2/panel-2-back --for part --papers lamp-dots
hinge-lantern-cli dress "$card" s3/figure --for part --papers quay-tiles
hinge-lantern-cli topper "$card" card/page-b parasol --paper brick-red --set "at 88 64"
