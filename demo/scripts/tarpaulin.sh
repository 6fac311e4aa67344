# A tent that is opened to 60 degrees and no farther: its floor is taut just beyond.
set -e
card=$1
hinge-lantern-cli new "$card" --sheet "size 240 x 100; score 120 v" --set title="Tarpaulin" works_to_deg=60 display_deg=60
hinge-lantern-cli add "$card" box --on gutter --set a=60 b=60 c=32 d=32 length=70 position=15
