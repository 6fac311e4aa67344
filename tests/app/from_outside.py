#!/usr/bin/env python3
# SPDX-License-Identifier: GPL-3.0-or-later
"""Drives the window as assistive technology does: over AT-SPI, on a bus and a screen of its own.

usage: from_outside.py PROGRAM CARD
Starts the program on the card, finds the fields of Size by their names, changes the width through its field, reads the
verdict, goes to Cut and reads the piece list there. Prints what it heard; exit 1 when something is missing.
"""
import os
import subprocess
import sys
import time


def inside(program, card):
    import gi
    gi.require_version("Atspi", "2.0")
    from gi.repository import Atspi
    Atspi.init()
    # On a busy machine the screen may take connections a moment later than xvfb-run believes.
    for attempt in range(20):
        child = subprocess.Popen([program, card])
        try:
            child.wait(1)
            time.sleep(0.5)
        except subprocess.TimeoutExpired:
            break
    else:
        print("MISSING: the program, which ends at once with %d" % child.returncode)
        return 1
    wrong = []

    def children(node):
        return [node.get_child_at_index(k) for k in range(node.get_child_count())]

    def walk(node, depth=0):
        if node is None or depth > 40:
            return
        yield node
        for c in children(node):
            yield from walk(c, depth + 1)

    def until(what, seconds=40):
        """Waits for something to become true; the bus answers when it can."""
        end = time.monotonic() + seconds
        while time.monotonic() < end:
            try:
                found = what()
                if found:
                    return found
            except Exception:  # what was found is gone again while the window changes
                pass
            time.sleep(0.2)
        return None

    def window():
        desktop = Atspi.get_desktop(0)
        for app in children(desktop):
            if app and "hinge" in (app.get_name() or "").lower() and app.get_child_count():
                return app
        return None

    def find(name, role=None, showing=True):
        for node in walk(window()):
            if (node.get_name() or "") != name or (role and node.get_role_name() not in role):
                continue
            if not showing or node.get_state_set().contains(Atspi.StateType.SHOWING):
                return node
        return None

    def press(node):
        names = [Atspi.Action.get_action_name(node, k).lower() for k in range(Atspi.Action.get_n_actions(node))]
        wanted = [k for k, name in enumerate(names) if name in ("press", "toggle", "click")]
        if not wanted:
            raise RuntimeError("only %s can be done to %s" % (names, node.get_name()))
        Atspi.Action.do_action(node, wanted[0])

    def expect(what, told):
        print(("heard: " if told else "MISSING: ") + what)
        if not told:
            wrong.append(what)
        return told

    try:
        expect("the program on the bus", until(window))
        places = ("radio button", "push button", "toggle button", "page tab", "check box")
        size = until(lambda: find("Place: Size", places))
        if expect("the place Size", size):
            press(size)
        use = until(lambda: find("How it is used …", ("toggle button", "push button", "check box")), 10)
        if expect("what shows how the card is used", use):
            press(use)
        for name in ("Base", "Fold along", "Stock", "Unit", "Cut from", "Envelope", "Shown"):
            box = until(lambda: find(name, ("combo box",)), 10)
            if expect("combo box " + name, box):
                expect("  its value \"%s\"" % box.get_description(), box.get_description())
        width = until(lambda: find("Finished width", ("text",)), 10)
        if expect("field Finished width", width):
            before = Atspi.Text.get_text(width, 0, -1)
            Atspi.EditableText.set_text_contents(width, "180")
            expect("the width \"%s\" takes 180" % before,
                   until(lambda: Atspi.Text.get_text(width, 0, -1).startswith("180"), 10))
        cut = until(lambda: find("Place: Cut", places))
        if expect("the place Cut", cut):
            press(cut)
        pieces = until(lambda: find("Piece list", ("table",)), 10)
        if expect("the piece list", pieces):
            names = until(lambda: [c.get_name() for c in walk(pieces) if c.get_role_name() == "table cell"], 10)
            expect("its first piece Card", names and "Card" in names)
        nameless = [n.get_role_name() for n in walk(window())
                    if n.get_role_name() in ("push button", "toggle button", "combo box", "check box", "radio button")
                    and n.get_state_set().contains(Atspi.StateType.SHOWING) and not n.get_name()]
        expect("a name on every control (%d without)" % len(nameless), not nameless)
    finally:
        child.terminate()
        child.wait(20)
    return 1 if wrong else 0


if __name__ == "__main__":
    if os.environ.get("HINGE_FROM_OUTSIDE") == "inside":
        sys.exit(inside(*sys.argv[1:3]))
    environment = dict(os.environ, HINGE_FROM_OUTSIDE="inside", QT_QPA_PLATFORM="xcb", QT_ACCESSIBILITY="1",
                       QT_LINUX_ACCESSIBILITY_ALWAYS_ON="1", GTK_MODULES="", NO_AT_BRIDGE="0")
    environment.pop("DBUS_SESSION_BUS_ADDRESS", None)
    sys.exit(subprocess.call(["xvfb-run", "-a", "-s", "-screen 0 1280x800x24", "dbus-run-session", "--",
                              sys.executable, os.path.abspath(__file__), *sys.argv[1:3]], env=environment))
