# A Z of unequal leaves: the timetable stands by itself, with a ticket stand in its first fold.
set -e
card=$1
hinge-lantern-cli new "$card" --sheet "size 250 x 150; score 110 v, 190 m" --set title="Ferry timetable" display_deg=70
hinge-lantern-cli add "$card" box --on fold-1 --set a=30 b=30 c=30 d=30 length=60 position=30
