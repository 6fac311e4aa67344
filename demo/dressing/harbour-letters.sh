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
hinge-lantern-cli set "$card" s7 paper=brick-red
hinge-lantern-cli set "$card" s8 paper=lamp-gold
hinge-lantern-cli set "$card" s9 paper=rice
hinge-lantern-cli set "$card" s10 paper=brick-red
hinge-lantern-cli set "$card" s11 paper=lamp-gold
hinge-lantern-cli dress "$card" card/page-b --for part --papers canal-blue canal-waves
hinge-lantern-cli dress "$card" card/page-a-back --for part --papers canal-blue
hinge-lantern-cli dress "$card" s8/wall-a --for part --papers lamp-dots
hinge-lantern-cli dress "$card" s8/wall-b-back --for part --papers lamp-dots
hinge-lantern-cli dress "$card" s9/wall-a --for part --papers pennants
hinge-lantern-cli dress "$card" s9/wall-b-back --for part --papers pennants
hinge-lantern-cli topper "$card" card/page-b gull --paper rice --set "at 128 96"
