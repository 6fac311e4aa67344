# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=night-blue
hinge-lantern-cli set "$card" s1 paper=plum
hinge-lantern-cli set "$card" s2 paper=lamp-gold
hinge-lantern-cli dress "$card" card/page-a --for part --papers mist net
hinge-lantern-cli dress "$card" card/page-a-back --for part --papers mist
hinge-lantern-cli dress "$card" s1/panel-2 --for part --papers lantern-string
hinge-lantern-cli dress "$card" s1/panel-2-back --for part --papers lantern-string
hinge-lantern-cli dress "$card" s2/panel-1 --for part --papers lamp-dots
hinge-lantern-cli dress "$card" s2/panel-1-back --for part --papers lamp-dots
hinge-lantern-cli topper "$card" card/page-a moon --paper lamp-gold --set "at 120 120"
