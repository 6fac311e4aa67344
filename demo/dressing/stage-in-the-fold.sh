# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=plum
hinge-lantern-cli set "$card" s1 paper=lamp-gold
hinge-lantern-cli set "$card" s2 paper=rice
hinge-lantern-cli set "$card" s3 paper=tar
hinge-lantern-cli dress "$card" card/page-a --for part --papers brick-red lantern-string
hinge-lantern-cli dress "$card" card/page-a-back --for part --papers brick-red
hinge-lantern-cli dress "$card" s3/wall-a --for part --papers deck-planks
hinge-lantern-cli dress "$card" s3/wall-a-back --for part --papers deck-planks
hinge-lantern-cli topper "$card" card/page-a star --paper lamp-gold --set "at 128 96"
