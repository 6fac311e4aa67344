# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=rice
hinge-lantern-cli dress "$card" card/page-b --papers moss reeds
hinge-lantern-cli dress "$card" card/page-c --papers moss reeds
hinge-lantern-cli topper "$card" card/page-a tag --paper brick-red --set "at 96 120"
