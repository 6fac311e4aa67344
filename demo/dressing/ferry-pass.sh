# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=canal-blue
hinge-lantern-cli set "$card" s1 paper=rice
hinge-lantern-cli set "$card" s2 paper=lamp-gold
hinge-lantern-cli set "$card" s3 paper=rice
hinge-lantern-cli set "$card" s4 paper=lamp-gold
hinge-lantern-cli dress "$card" card/page-a --for part --papers rice canal-waves
hinge-lantern-cli dress "$card" s1/panel-1 --for part --papers pennants
hinge-lantern-cli dress "$card" s2/panel-2 --for part --papers lamp-dots
hinge-lantern-cli dress "$card" s3/panel-1 --for part --papers pennants
hinge-lantern-cli topper "$card" card/page-a boat --paper tar --set "at 96 88"
