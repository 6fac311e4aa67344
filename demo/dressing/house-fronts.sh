# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=shell
hinge-lantern-cli dress "$card" card/page-b --for part --papers plum
hinge-lantern-cli dress "$card" card/page-a-back --for part --papers plum
hinge-lantern-cli topper "$card" card/page-b cloud --paper rice --set "at 17.5 36"
