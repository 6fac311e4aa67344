# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=canal-blue
hinge-lantern-cli set "$card" s1 paper=mist
hinge-lantern-cli set "$card" s2 paper=tar
hinge-lantern-cli set "$card" s3 paper=rice
hinge-lantern-cli set "$card" s4 paper=mist
hinge-lantern-cli set "$card" s5 paper=tar
hinge-lantern-cli set "$card" s6 paper=rice
hinge-lantern-cli dress "$card" card/page-a --for part --papers moss reeds
hinge-lantern-cli dress "$card" s1/panel-1 --for part --papers net
hinge-lantern-cli dress "$card" s2/panel-2 --for part --papers deck-planks
hinge-lantern-cli dress "$card" s3/panel-1 --for part --papers pennants
hinge-lantern-cli dress "$card" s4/panel-1 --for part --papers net
hinge-lantern-cli dress "$card" s5/panel-1 --for part --papers deck-planks
hinge-lantern-cli dress "$card" s6/panel-1 --for part --papers pennants
hinge-lantern-cli topper "$card" card/page-a leaf --paper moss --set "at 128 96"
