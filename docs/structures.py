#!/usr/bin/env python3
# SPDX-License-Identifier: GPL-3.0-or-later
"""Writes docs/structures.md from what the program itself tells about its structures. Run after a change of a table."""
import json
import pathlib
import subprocess

root = pathlib.Path(__file__).resolve().parent.parent
told = json.loads(subprocess.run([root / "build/bin/hinge-lantern-cli", "structures", "--json"], check=True, capture_output=True, text=True).stdout)
lines = ["Written by `docs/structures.py` from `hinge-lantern-cli structures --json`; every size is a row of its recipe's table.", ""]
for kind in told["bases"] + told["structures"]:
    if kind is told["bases"][0]:
        lines += ["# Bases", ""]
    if kind is told["structures"][0]:
        lines += ["# Structures", ""]
    lines += [f"## {kind['label']} (`{kind['key']}`)", "", kind["summary"] + ".", "", "| key | name | range | starts at | meaning |", "| --- | --- | --- | --- | --- |"]
    for p in kind["parameters"]:
        unit = {"mm": " mm", "deg": "°"}.get(p["unit"], "")
        span = ", ".join(p["choices"]) if "choices" in p else f"{p['min']:g} to {p['max']:g}{unit}"
        start = p["choices"][int(p["default"])] if "choices" in p else f"{p['default']:g}{unit}"
        lines.append(f"| `{p['key']}` | {p['label']} | {span} | {start} | {p['meaning']} |")
    lines.append("")
(root / "docs/structures.md").write_text("\n".join(lines))
