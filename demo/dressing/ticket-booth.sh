# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=canal-blue
hinge-lantern-cli set "$card" s1 paper=brick-red
hinge-lantern-cli set "$card" s2 paper=rice
hinge-lantern-cli set "$card" s3 paper=lamp-gold
hinge-lantern-cli dress "$card" card/page-b --for part --papers lamp-gold awning-stripes
hinge-lantern-cli dress "$card" card/page-a-back --for part --papers lamp-gold
hinge-lantern-cli topper "$card" card/page-b tag --paper rice --set "at 120 53"
