#!/usr/bin/env python3
# SPDX-License-Identifier: GPL-3.0-or-later
"""Writes docs/constructions.md and its pictures from the starting designs in demo/, with what the program tells of them."""
import json
import pathlib
import subprocess

root = pathlib.Path(__file__).resolve().parent.parent
cli = root / "build/bin/hinge-lantern-cli"
# What each construction is, the design that ships it, and the change that must be found: (where, size, value, finding).
ROWS = [
    ("Box strips of falling width over a concertina, a block staircase", "block-stairs", ("s1", "c", "60", "shut-flat")),
    ("A stand-up table: step with a front tread and a brace strip under it", "market-table", ("s1", "panel-2", "50", "shut-flat")),
    ("A three-panel front joined to a two-panel side with rounded halves, a small span inside", "lock-halves", ("s1", "panel-2", "130", "shut-flat")),
    ("Frames stacked in a centre fold, openings centred on the crease, a figure on one of them", "canal-frames", ("s3", "panel-2", "90", "outside-cover")),
    ("A stepped insert between two tabs, with the braces that guide it", "steps-in-the-fold", ("s1", "panel-3", "34", "shut-flat")),
    ("An accordion that pushes through an aperture, with two guides", "lantern-through-the-wall", ("s1", "height", "40", "panels-hit")),
    ("Two zigzag sheets with a slanted upper edge, locked by half slots", "lamp-lattice", ("s1", "panel-2", "50", "shut-flat")),
    ("A sleeve with faceted corners pushed in and a film that bows inside", "oil-sleeve", ("s3", "film", "60 mm", "film-taut")),
    ("Steps cut from the panel, letters in the risers, box strips at two depths", "harbour-letters", ("s8", "position", "20", "panels-hit")),
    ("A desk photo stand of two overlapping folded parts, the second with a shortened flap", "photo-stand", ("card", "open", "120", "falls-over")),
    ("A pocket whose flap pulls an insert out as it opens, a strap folded round the insert", "ferry-pass", ("s2", "panel-2", "40", "slide-past-stop")),
    ("A many-step accordion with windows and covers", "long-quay", ("s1", "height", "106", "window.past-edge")),
    ("A Z-shaped front on a top-fold card, the double easel", "two-tents", ("card", "stop2", "130", "easel.stop")),
    ("Two half shells that an elastic band pulls into a faceted ball", "pop-up-lantern", ("s1", "band", "200 mm", "band-slack")),
    ("Two leaning arms over the gutter, each with an accordion that turns as it opens", "paddle-wheels", ("s4", "position", "60", "panels-hit")),
    ("A cut centre panel in a Z-fold that pops forward", "stage-in-the-fold", ("s1", "a", "80", "outside-cover")),
    ("A cross on the gutter that swings two discs through one another", "moth-wings", ("s1", "panel-2", "126", "outside-cover")),
    ("A diorama: back with two wings and bridges at two depths", "lock-diorama", ("s1", "w2", "24", "shut-flat")),
    ("A double-wedge front: two mirrored concertinas meet a middle one", "two-awnings", ("s2", "panel-2", "30", "shut-flat")),
    ("A tower on a base with a back flap and bridging strips", "tower", ("s1", "position", "-20", "outside-cover")),
    ("A pull strip that moves limbs on pivots, with a part of the leaf of its own", "waving-boatmen", ("s4", "arm", "wider", "limbs-hit")),
]


def sizes(design):
    base = ", ".join(f"{k} {v:g}" for k, v in design["card"].get("base_values", {}).items())
    lines = [f"{design['card']['base']}" + (f": {base}" if base else "")]
    for s in design["structures"]:
        name = s.get("label") or s["kind"]
        if "work" in s:
            w = s["work"]
            xs = [p[0] for p in w["outline"]]
            scores = sorted(min((l["from"], l["to"]), key=lambda p: p[1])[0] - min(xs) for l in w["lines"] if l["kind"] != "cut")
            joints = ", ".join(sorted({j["kind"] for j in w["joints"]}))
            lines.append(f"{name}: {max(xs) - min(xs):.4g} mm" + (" scored at " + ", ".join(f"{x:.4g}" for x in scores) if 0 < len(scores) <= 8 else f", {len(scores)} scores" if scores else "") + f"; {joints}")
        elif len(lines) < 6:
            lines.append(f"{name}: " + ", ".join(f"{k} {v:g}" for k, v in list(s["values"].items())[:6]))
    return "<br>".join(lines[:6])


out = ["Written by `docs/constructions.py` from the designs in `demo/`. Every design opens from the *New* place and can be changed in all its sizes;",
       "the last column is a change that the tests make and the finding it must give.", "",
       "| | construction | what it is made of (mm, degrees) | spoiled by |", "| --- | --- | --- | --- |"]
for text, name, (where, key, value, code) in ROWS:
    picture = f"constructions/{name}.png"
    subprocess.run([cli, "gallery", root / f"demo/{name}.hinge", "--columns", "1", "--size", "240", "-o", root / "docs" / picture], check=True)
    design = json.loads((root / f"demo/{name}.hinge").read_text())
    out.append(f"| ![{design['title']}]({picture}) | **{text}**<br>[{name}](../demo/{name}.hinge) | {sizes(design)} | {where} {key} {value}: `{code}` |")
(root / "docs/constructions.md").write_text("\n".join(out) + "\n")
