# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=moss
hinge-lantern-cli set "$card" s1 paper=lamp-gold
hinge-lantern-cli dress "$card" card/page-b --for part --papers tar net
hinge-lantern-cli dress "$card" card/page-a-back --for part --papers tar
hinge-lantern-cli dress "$card" s1/wall-a --for part --papers lamp-dots
hinge-lantern-cli dress "$card" s1/wall-a-back --for part --papers lamp-dots
hinge-lantern-cli topper "$card" card/page-b leaf --paper lamp-gold --set "at 96 80"
