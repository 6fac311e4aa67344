# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=rice
hinge-lantern-cli set "$card" s1 paper=canal-blue
hinge-lantern-cli dress "$card" card/page-c --for part --papers canal-blue pennants
hinge-lantern-cli dress "$card" card/page-a-back --for part --papers canal-blue
hinge-lantern-cli dress "$card" s1/wall-a --for part --papers canal-waves
hinge-lantern-cli dress "$card" s1/wall-a-back --for part --papers canal-waves
hinge-lantern-cli topper "$card" card/page-c boat --paper canal-blue --set "at 48 120"
