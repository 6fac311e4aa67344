# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=mist
hinge-lantern-cli set "$card" s1 paper=brick-red
hinge-lantern-cli set "$card" s2 paper=lamp-gold
hinge-lantern-cli set "$card" s3 paper=rice
hinge-lantern-cli set "$card" s4 paper=tar
hinge-lantern-cli set "$card" s5 paper=brick-red
hinge-lantern-cli dress "$card" card/page-a --for part --papers canal-blue canal-waves
hinge-lantern-cli dress "$card" s1/panel-1 --for part --papers quay-bricks
hinge-lantern-cli dress "$card" s2/panel-1 --for part --papers lamp-dots
hinge-lantern-cli dress "$card" s3/panel-1 --for part --papers pennants
hinge-lantern-cli dress "$card" s4/panel-1 --for part --papers deck-planks
hinge-lantern-cli dress "$card" s5/panel-1 --for part --papers quay-bricks
hinge-lantern-cli topper "$card" card/page-a gull --paper rice --set "at 120 104"
