# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=moss
hinge-lantern-cli set "$card" s1 paper=shell
hinge-lantern-cli set "$card" s2 paper=moss
hinge-lantern-cli set "$card" s3 paper=mist
hinge-lantern-cli set "$card" s4 paper=shell
hinge-lantern-cli dress "$card" card/page-b --for part --papers canal-blue canal-waves
hinge-lantern-cli dress "$card" card/page-a-back --for part --papers canal-blue
hinge-lantern-cli dress "$card" s1/panel-1 --for part --papers quay-tiles
hinge-lantern-cli dress "$card" s2/panel-1 --for part --papers reeds
hinge-lantern-cli topper "$card" card/page-b cloud --paper rice --set "at 104 128"
