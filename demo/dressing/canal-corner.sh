# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=rice
hinge-lantern-cli set "$card" s1 paper=brick-red
hinge-lantern-cli set "$card" s2 paper=canal-blue
hinge-lantern-cli set "$card" s3 paper=lamp-gold
hinge-lantern-cli set "$card" s4 paper=brick-red
hinge-lantern-cli set "$card" s5 paper=canal-blue
hinge-lantern-cli set "$card" s6 paper=lamp-gold
hinge-lantern-cli set "$card" s7 paper=brick-red
hinge-lantern-cli set "$card" s8 paper=canal-blue
hinge-lantern-cli set "$card" s9 paper=lamp-gold
hinge-lantern-cli set "$card" s10 paper=brick-red
hinge-lantern-cli set "$card" s11 paper=canal-blue
hinge-lantern-cli dress "$card" card/page-a --for part --papers canal-blue net
hinge-lantern-cli dress "$card" card/page-a-back --for part --papers canal-blue
hinge-lantern-cli dress "$card" s1/lid --for twins --papers quay-bricks
hinge-lantern-cli dress "$card" s1/inner-back --for twins --papers quay-bricks
hinge-lantern-cli dress "$card" s2/far-a --for twins --papers canal-waves
hinge-lantern-cli dress "$card" s2/far-a-back --for twins --papers canal-waves
hinge-lantern-cli dress "$card" s3/panel-b --for part --papers lamp-dots
hinge-lantern-cli dress "$card" s3/panel-b-back --for part --papers lamp-dots
hinge-lantern-cli topper "$card" card/page-a fish --paper lamp-gold --set "at 160 120"
