# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=tar
hinge-lantern-cli set "$card" s1 paper=lamp-gold
hinge-lantern-cli set "$card" s2 paper=plum
hinge-lantern-cli set "$card" s3 paper=shell
hinge-lantern-cli set "$card" s4 paper=lamp-gold
hinge-lantern-cli dress "$card" card/page-a --for part --papers night-blue lamp-dots
hinge-lantern-cli dress "$card" card/page-a-back --for part --papers night-blue
hinge-lantern-cli dress "$card" s1/panel-2 --for part --papers lamp-dots
hinge-lantern-cli dress "$card" s1/panel-3-back --for part --papers lamp-dots
hinge-lantern-cli dress "$card" s2/panel-2 --for part --papers lantern-string
hinge-lantern-cli dress "$card" s2/panel-3-back --for part --papers lantern-string
hinge-lantern-cli dress "$card" s3/panel-2 --for part --papers quay-tiles
hinge-lantern-cli dress "$card" s3/panel-2-back --for part --papers quay-tiles
hinge-lantern-cli topper "$card" card/page-a star --paper lamp-gold --set "at 120 112"
