# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=night-blue
hinge-lantern-cli set "$card" s1 paper=lamp-gold
hinge-lantern-cli set "$card" s2 paper=rice
hinge-lantern-cli dress "$card" card/page-a --for part --papers lamp-gold lamp-dots
hinge-lantern-cli dress "$card" card/page-a-back --for part --papers lamp-gold
hinge-lantern-cli dress "$card" s1/panel-2 --for part --papers lamp-dots
hinge-lantern-cli dress "$card" s1/panel-2-back --for part --papers lamp-dots
