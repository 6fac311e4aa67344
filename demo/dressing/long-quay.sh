# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=rice
hinge-lantern-cli set "$card" s1 paper=canal-blue
hinge-lantern-cli set "$card" s2 paper=lamp-gold
hinge-lantern-cli set "$card" s3 paper=brick-red
hinge-lantern-cli set "$card" s4 paper=moss
hinge-lantern-cli set "$card" s5 paper=plum
hinge-lantern-cli set "$card" s6 paper=canal-blue
hinge-lantern-cli dress "$card" card/page-a --for part --papers brick-red
hinge-lantern-cli dress "$card" card/page-a-back --for part --papers brick-red
hinge-lantern-cli topper "$card" card/page-a gull --paper mist --set "at 88 56"
