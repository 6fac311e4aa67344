# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=night-blue
hinge-lantern-cli dress "$card" card/page-a --for part --papers plum night-sky
hinge-lantern-cli dress "$card" card/page-a-back --for part --papers plum
hinge-lantern-cli topper "$card" card/page-a moon --paper lamp-gold --set "at 96 83"
