# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=tar
hinge-lantern-cli set "$card" s1 paper=lamp-gold
hinge-lantern-cli dress "$card" card/page-a --for part --papers lamp-gold pennants
hinge-lantern-cli dress "$card" card/page-a-back --for part --papers lamp-gold
hinge-lantern-cli dress "$card" s1/panel-1 --for part --papers lamp-dots
hinge-lantern-cli topper "$card" card/page-a star --paper brick-red --set "at 78.5 116"
