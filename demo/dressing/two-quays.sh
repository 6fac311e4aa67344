# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=shell
hinge-lantern-cli set "$card" s1 paper=canal-blue
hinge-lantern-cli dress "$card" card/page-b --for part --papers moss roof-scales
hinge-lantern-cli dress "$card" card/page-a-back --for part --papers moss
hinge-lantern-cli dress "$card" s1/panel-1 --for part --papers canal-waves
hinge-lantern-cli dress "$card" s1/panel-1-back --for part --papers canal-waves
