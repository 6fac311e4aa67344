# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=tar
hinge-lantern-cli dress "$card" card/page-a --for part --papers plum
