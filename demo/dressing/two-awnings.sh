# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=rice
hinge-lantern-cli set "$card" s1 paper=canal-blue
hinge-lantern-cli set "$card" s2 paper=brick-red
hinge-lantern-cli set "$card" s3 paper=canal-blue
hinge-lantern-cli dress "$card" card/page-b --for part --papers canal-blue awning-stripes
hinge-lantern-cli dress "$card" card/page-a-back --for part --papers canal-blue
hinge-lantern-cli dress "$card" s1/panel-2 --for part --papers canal-waves
hinge-lantern-cli dress "$card" s1/panel-3-back --for part --papers canal-waves
hinge-lantern-cli dress "$card" s2/panel-2 --for part --papers quay-bricks
hinge-lantern-cli dress "$card" s2/panel-3-back --for part --papers quay-bricks
hinge-lantern-cli dress "$card" s3/panel-2 --for part --papers canal-waves
hinge-lantern-cli dress "$card" s3/panel-3-back --for part --papers canal-waves
hinge-lantern-cli topper "$card" card/page-b cloud --paper mist --set "at 120 104"
