# Four leaves with one opening across all three folds, drawn elsewhere and brought in.
set -e
card=$1
hinge-lantern-cli new "$card" --sheet "size 280 x 120; score 70 v, 140 m, 210 v" --set title="Bridge of arches" display_deg=70
here=$(dirname "$0")
hinge-lantern-cli import "$card" "$here/../drawings/bridge-arches.svg" --as opening --into card --at 140,66
