# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=mist
hinge-lantern-cli set "$card" s1 paper=brick-red
hinge-lantern-cli set "$card" s2 paper=lamp-gold
hinge-lantern-cli set "$card" s3 paper=rice
hinge-lantern-cli set "$card" s4 paper=brick-red
hinge-lantern-cli set "$card" s5 paper=lamp-gold
hinge-lantern-cli set "$card" s6 paper=rice
hinge-lantern-cli dress "$card" card/page-a --for part --papers canal-blue canal-waves
hinge-lantern-cli dress "$card" card/page-a-back --for part --papers canal-blue
hinge-lantern-cli dress "$card" s1/panel-a --for part --papers quay-bricks
hinge-lantern-cli dress "$card" s1/panel-a-back --for part --papers quay-bricks
hinge-lantern-cli dress "$card" s2/wall-a --for part --papers lamp-dots
hinge-lantern-cli dress "$card" s2/wall-a-back --for part --papers lamp-dots
hinge-lantern-cli dress "$card" s3/wall-a --for part --papers pennants
hinge-lantern-cli dress "$card" s3/wall-b-back --for part --papers pennants
hinge-lantern-cli dress "$card" s4/panel-a --for part --papers quay-bricks
hinge-lantern-cli dress "$card" s4/panel-a-back --for part --papers quay-bricks
hinge-lantern-cli dress "$card" s5/wall-a --for part --papers lamp-dots
hinge-lantern-cli dress "$card" s5/wall-a-back --for part --papers lamp-dots
hinge-lantern-cli dress "$card" s6/wall-a --for part --papers pennants
hinge-lantern-cli dress "$card" s6/wall-b-back --for part --papers pennants
hinge-lantern-cli topper "$card" card/page-a boat --paper tar --set "at 152 112"
