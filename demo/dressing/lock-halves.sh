# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=shell
hinge-lantern-cli set "$card" s1 paper=mist
hinge-lantern-cli set "$card" s2 paper=canal-blue
hinge-lantern-cli dress "$card" card/page-a --for part --papers moss quay-bricks
hinge-lantern-cli dress "$card" card/page-a-back --for part --papers moss
hinge-lantern-cli dress "$card" s1/panel-2 --for part --papers net
hinge-lantern-cli dress "$card" s2/panel-2 --for part --papers canal-waves
hinge-lantern-cli topper "$card" card/page-a parasol --paper brick-red --set "at 104 48"
