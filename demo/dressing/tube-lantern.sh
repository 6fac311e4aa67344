# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=plum
hinge-lantern-cli set "$card" s1 paper=lamp-gold
hinge-lantern-cli dress "$card" card/page-b --for part --papers lamp-gold lamp-dots
hinge-lantern-cli dress "$card" card/page-a-back --for part --papers lamp-gold
hinge-lantern-cli dress "$card" s1/panel-2 --for part --papers lamp-dots
hinge-lantern-cli dress "$card" s1/panel-3-back --for twins --papers lamp-dots
hinge-lantern-cli topper "$card" card/page-b moon --paper rice --set "at 120 88"
