# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=mist
hinge-lantern-cli set "$card" s1 paper=brick-red
hinge-lantern-cli set "$card" s2 paper=lamp-gold
hinge-lantern-cli dress "$card" card/page-b --for part --papers plum pennants
hinge-lantern-cli dress "$card" card/page-a-back --for part --papers plum
hinge-lantern-cli dress "$card" s1/panel-2 --for part --papers quay-bricks
hinge-lantern-cli dress "$card" s2/panel-2 --for part --papers lamp-dots
hinge-lantern-cli dress "$card" s2/panel-2-back --for part --papers lamp-dots
hinge-lantern-cli topper "$card" card/page-b gull --paper plum --set "at 120 88"
