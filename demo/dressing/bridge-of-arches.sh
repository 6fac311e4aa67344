# What this card wears.
set -e
card=$1
hinge-lantern-cli set "$card" card stock=canal-blue
hinge-lantern-cli dress "$card" card/page-a --papers mist canal-waves
hinge-lantern-cli dress "$card" card/page-b --papers mist canal-waves
hinge-lantern-cli dress "$card" card/page-e --papers mist canal-waves
hinge-lantern-cli dress "$card" card/page-f --papers mist canal-waves
hinge-lantern-cli topper "$card" card/page-a boat --paper brick-red --set "at 35 102"
