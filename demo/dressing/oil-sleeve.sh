# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=brick-red
hinge-lantern-cli set "$card" s1 paper=lamp-gold
hinge-lantern-cli set "$card" s2 paper=tar
hinge-lantern-cli set "$card" s3 paper=lamp-gold
hinge-lantern-cli dress "$card" card/page-b --for part --papers tar
hinge-lantern-cli dress "$card" card/page-a-back --for part --papers tar
hinge-lantern-cli dress "$card" s1/panel-a-back --for part --papers lamp-dots
hinge-lantern-cli dress "$card" s2/panel-a-back --for part --papers deck-planks
hinge-lantern-cli dress "$card" s3/panel-1 --for part --papers lamp-dots
