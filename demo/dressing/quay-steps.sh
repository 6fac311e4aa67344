# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=mist
hinge-lantern-cli set "$card" s1 paper=shell
hinge-lantern-cli set "$card" s2 paper=mist
hinge-lantern-cli set "$card" s3 paper=brick-red
hinge-lantern-cli set "$card" s4 paper=shell
hinge-lantern-cli dress "$card" s1/wall-a --for part --papers quay-tiles
hinge-lantern-cli dress "$card" s1/wall-b-back --for part --papers quay-tiles
hinge-lantern-cli dress "$card" s3/wall-a --for part --papers quay-bricks
hinge-lantern-cli dress "$card" s3/wall-b-back --for part --papers quay-bricks
hinge-lantern-cli dress "$card" s4/figure --for part --papers quay-tiles
hinge-lantern-cli topper "$card" card/page-a lamp-post --paper tar --set "at 152 120"
