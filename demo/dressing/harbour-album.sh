# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=tar
hinge-lantern-cli set "$card" s2 paper=shell
hinge-lantern-cli set "$card" s3 paper=canal-blue
hinge-lantern-cli dress "$card" card/page-a --for part --papers mist quay-tiles
hinge-lantern-cli dress "$card" s2/panel-1 --for part --papers quay-tiles
hinge-lantern-cli dress "$card" s3/panel-1 --for part --papers canal-waves
hinge-lantern-cli topper "$card" card/page-a gull --paper rice --set "at 160 120"
