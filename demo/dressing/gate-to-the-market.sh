# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=brick-red
hinge-lantern-cli set "$card" s1 paper=lamp-gold
hinge-lantern-cli set "$card" s2 paper=rice
hinge-lantern-cli set "$card" s3 paper=lamp-gold
hinge-lantern-cli set "$card" s4 paper=rice
hinge-lantern-cli set "$card" s5 paper=lamp-gold
hinge-lantern-cli set "$card" s6 paper=rice
hinge-lantern-cli dress "$card" card/page-a --for part --papers lamp-gold quay-bricks
hinge-lantern-cli dress "$card" card/page-a-back --for part --papers lamp-gold
hinge-lantern-cli dress "$card" s3/wall-a --for part --papers lamp-dots
hinge-lantern-cli dress "$card" s3/wall-b-back --for part --papers lamp-dots
hinge-lantern-cli dress "$card" s4/wall-a --for part --papers pennants
hinge-lantern-cli dress "$card" s4/wall-a-back --for part --papers pennants
hinge-lantern-cli topper "$card" card/page-a lantern --paper lamp-gold --set "at 120 59.5"
