# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=mist
hinge-lantern-cli set "$card" s1 paper=brick-red
hinge-lantern-cli set "$card" s2 paper=shell
hinge-lantern-cli set "$card" s3 paper=lamp-gold
hinge-lantern-cli set "$card" s4 paper=moss
hinge-lantern-cli dress "$card" card/page-b --for part --papers night-blue night-sky
hinge-lantern-cli dress "$card" card/page-a-back --for part --papers night-blue
hinge-lantern-cli dress "$card" s1/wall-a --for part --papers quay-bricks
hinge-lantern-cli dress "$card" s1/wall-a-back --for part --papers quay-bricks
hinge-lantern-cli dress "$card" s2/wall-a --for part --papers quay-tiles
hinge-lantern-cli dress "$card" s2/wall-a-back --for part --papers quay-tiles
hinge-lantern-cli dress "$card" s3/panel-a --for part --papers lamp-dots
hinge-lantern-cli dress "$card" s3/panel-a-back --for part --papers lamp-dots
hinge-lantern-cli dress "$card" s4/panel-a --for part --papers reeds
hinge-lantern-cli dress "$card" s4/panel-a-back --for part --papers reeds
hinge-lantern-cli topper "$card" card/page-b moon --paper rice --set "at 160 112"
