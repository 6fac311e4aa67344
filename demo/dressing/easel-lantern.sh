# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=plum
hinge-lantern-cli set "$card" s1 paper=lamp-gold
hinge-lantern-cli set "$card" s2 paper=brick-red
hinge-lantern-cli dress "$card" card/page-b --for part --papers lamp-gold lantern-string
hinge-lantern-cli dress "$card" card/page-a-back --for part --papers lamp-gold
