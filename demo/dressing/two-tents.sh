# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=moss
hinge-lantern-cli set "$card" s1 paper=lamp-gold
hinge-lantern-cli dress "$card" card/page-b --for part --papers night-blue night-sky
hinge-lantern-cli dress "$card" card/picture-back --for part --papers night-blue
hinge-lantern-cli dress "$card" s1/figure --for part --papers lamp-dots
hinge-lantern-cli topper "$card" card/page-b star --paper rice --set "at 120 88"
