# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=shell
hinge-lantern-cli set "$card" s1 paper=rice
hinge-lantern-cli set "$card" s2 paper=brick-red
hinge-lantern-cli set "$card" s3 paper=rice
hinge-lantern-cli set "$card" s4 paper=brick-red
hinge-lantern-cli set "$card" s5 paper=rice
hinge-lantern-cli dress "$card" card/page-b --for part --papers brick-red awning-stripes
hinge-lantern-cli dress "$card" card/page-a-back --for part --papers brick-red
hinge-lantern-cli dress "$card" s1/panel-a --for part --papers pennants
hinge-lantern-cli dress "$card" s1/panel-a-back --for part --papers pennants
hinge-lantern-cli dress "$card" s2/panel-a --for part --papers quay-bricks
hinge-lantern-cli dress "$card" s2/panel-a-back --for part --papers quay-bricks
hinge-lantern-cli dress "$card" s3/panel-a --for part --papers pennants
hinge-lantern-cli dress "$card" s3/panel-a-back --for part --papers pennants
hinge-lantern-cli dress "$card" s5/arm --for part --papers pennants
hinge-lantern-cli topper "$card" card/page-b gull --paper rice --set "at 160 112"
