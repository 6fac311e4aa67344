# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=mist
hinge-lantern-cli set "$card" s1 paper=shell
hinge-lantern-cli set "$card" s2 paper=canal-blue
hinge-lantern-cli set "$card" s3 paper=shell
hinge-lantern-cli set "$card" s4 paper=canal-blue
hinge-lantern-cli dress "$card" card/page-b --for part --papers tar deck-planks
hinge-lantern-cli dress "$card" card/page-a-back --for part --papers tar
hinge-lantern-cli dress "$card" s1/wall-a --for part --papers quay-tiles
hinge-lantern-cli dress "$card" s1/near-a-back --for part --papers quay-tiles
hinge-lantern-cli dress "$card" s2/wall-a --for part --papers canal-waves
hinge-lantern-cli dress "$card" s2/near-a-back --for part --papers canal-waves
hinge-lantern-cli dress "$card" s3/panel-a --for part --papers quay-tiles
hinge-lantern-cli dress "$card" s3/panel-a-back --for part --papers quay-tiles
hinge-lantern-cli topper "$card" card/page-b fish --paper canal-blue --set "at 160 120"
