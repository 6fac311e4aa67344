# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=plum
hinge-lantern-cli set "$card" s1 paper=rice
hinge-lantern-cli set "$card" s2 paper=lamp-gold
hinge-lantern-cli dress "$card" card/page-a --for part --papers shell roof-scales
hinge-lantern-cli dress "$card" card/page-a-back --for part --papers shell
hinge-lantern-cli dress "$card" s2/panel-2 --for part --papers lamp-dots
hinge-lantern-cli dress "$card" s2/panel-3-back --for part --papers lamp-dots
hinge-lantern-cli topper "$card" card/page-a star --paper lamp-gold --set "at 96 120"
