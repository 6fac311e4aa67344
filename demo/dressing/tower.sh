# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=night-blue
hinge-lantern-cli set "$card" s1 paper=shell
hinge-lantern-cli set "$card" s2 paper=brick-red
hinge-lantern-cli set "$card" s3 paper=lamp-gold
hinge-lantern-cli set "$card" s4 paper=shell
hinge-lantern-cli set "$card" s5 paper=brick-red
hinge-lantern-cli set "$card" s6 paper=lamp-gold
hinge-lantern-cli set "$card" s7 paper=shell
hinge-lantern-cli set "$card" s8 paper=brick-red
hinge-lantern-cli dress "$card" card/page-a --for part --papers tar night-sky
hinge-lantern-cli dress "$card" card/page-a-back --for part --papers tar
hinge-lantern-cli dress "$card" s1/wall-a --for part --papers quay-tiles
hinge-lantern-cli topper "$card" card/page-a moon --paper lamp-gold --set "at 152 80"
