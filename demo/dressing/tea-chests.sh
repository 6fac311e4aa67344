# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=rice
hinge-lantern-cli set "$card" s1 paper=shell
hinge-lantern-cli set "$card" s2 paper=brick-red
hinge-lantern-cli set "$card" s3 paper=moss
hinge-lantern-cli dress "$card" card/page-b --for part --papers moss reeds
hinge-lantern-cli dress "$card" card/page-a-back --for part --papers moss
hinge-lantern-cli dress "$card" s1/wall-a --for part --papers quay-tiles
hinge-lantern-cli dress "$card" s1/near-a-back --for part --papers quay-tiles
hinge-lantern-cli dress "$card" s2/wall-a --for part --papers quay-bricks
hinge-lantern-cli dress "$card" s2/near-a-back --for part --papers quay-bricks
hinge-lantern-cli dress "$card" s3/wall-a --for part --papers reeds
hinge-lantern-cli dress "$card" s3/wall-b-back --for part --papers reeds
hinge-lantern-cli topper "$card" card/page-b leaf --paper moss --set "at 160 120"
