# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=canal-blue
hinge-lantern-cli set "$card" s1 paper=rice
hinge-lantern-cli dress "$card" card/page-a --for part --papers rice canal-waves
hinge-lantern-cli dress "$card" card/page-a-back --for part --papers rice
hinge-lantern-cli dress "$card" s1/panel-2 --for part --papers pennants
hinge-lantern-cli topper "$card" card/page-a gull --paper rice --set "at 120 104"
