# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=shell
hinge-lantern-cli set "$card" s1 paper=brick-red
hinge-lantern-cli set "$card" s2 paper=mist
hinge-lantern-cli set "$card" s3 paper=lamp-gold
hinge-lantern-cli dress "$card" card/page-b --for part --papers canal-blue quay-tiles
hinge-lantern-cli dress "$card" card/page-a-back --for part --papers canal-blue
hinge-lantern-cli dress "$card" s1/panel-2 --for part --papers quay-bricks
hinge-lantern-cli dress "$card" s1/panel-3-back --for part --papers quay-bricks
hinge-lantern-cli dress "$card" s2/panel-2 --for part --papers net
hinge-lantern-cli dress "$card" s3/panel-2 --for part --papers lamp-dots
hinge-lantern-cli dress "$card" s3/panel-2-back --for part --papers lamp-dots
hinge-lantern-cli topper "$card" card/page-b boat --paper canal-blue --set "at 104 104"
