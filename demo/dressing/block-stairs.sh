# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=mist
hinge-lantern-cli set "$card" s1 paper=shell
hinge-lantern-cli set "$card" s2 paper=brick-red
hinge-lantern-cli set "$card" s3 paper=mist
hinge-lantern-cli set "$card" s4 paper=shell
hinge-lantern-cli set "$card" s5 paper=brick-red
hinge-lantern-cli dress "$card" card/page-a --for part --papers canal-blue quay-tiles
hinge-lantern-cli dress "$card" card/page-a-back --for part --papers canal-blue
hinge-lantern-cli dress "$card" s1/wall-a --for part --papers quay-tiles
hinge-lantern-cli dress "$card" s1/wall-a-back --for part --papers quay-tiles
hinge-lantern-cli dress "$card" s2/wall-a --for part --papers quay-bricks
hinge-lantern-cli dress "$card" s2/wall-a-back --for part --papers quay-bricks
hinge-lantern-cli dress "$card" s3/wall-a --for part --papers net
hinge-lantern-cli dress "$card" s3/wall-a-back --for part --papers net
hinge-lantern-cli dress "$card" s4/wall-a --for part --papers quay-tiles
hinge-lantern-cli dress "$card" s4/wall-a-back --for part --papers quay-tiles
hinge-lantern-cli dress "$card" s5/figure --for part --papers quay-bricks
hinge-lantern-cli topper "$card" card/page-a lamp-post --paper tar --set "at 136 88"
