#!/usr/bin/env python3
# SPDX-License-Identifier: GPL-3.0-or-later
"""What a reader would stumble over: lines over 100 columns, functions over 70 lines, two types of one
name, and sources that clang-format would write otherwise. With --tidy BASE also what clang-tidy finds in the sources that
changed since BASE; with --tidy-for MINUTES in as many sources as there is time for, those that
changed last first (compile_commands.json in build/ must be there). Exit 1 when anything is found.

usage: tools/lint.py [--tidy BASE | --tidy-for MINUTES]
"""
import concurrent.futures
import json
import os
import re
import shutil
import subprocess
import sys
import tempfile
import time

COLUMNS, LINES = 100, 70


def listed(*patterns):
    out = subprocess.run(["git", "ls-files", *patterns], capture_output=True, text=True, check=True)
    return [f for f in out.stdout.split("\n") if f and os.path.exists(f)]


def without_text(line):
    """A line without what stands in quotes and comments, so that braces can be counted."""
    line = re.sub(r'"(?:\\.|[^"\\])*"', '""', line)
    line = re.sub(r"'(?:\\.|[^'\\])'", "''", line)
    return line.split("//")[0]


STARTS = re.compile(r"^(\s*)(?!(?:namespace|class|struct|enum|union|extern|if|for|while|switch|else|do|"
                    r"return|try|catch|case|default|public|private|protected)\b)[\w:~<>,*&\s\[\]()=+\-!|.]*"
                    r"\)[\w\s:&<>,\->(){}.*+=!?/\"]*\{\s*$")


def functions(path):
    """First line, length and name of every function: from its opening brace to the brace that closes it."""
    raw = False
    depth, open_at = 0, []  # (depth before, line number, is a function)
    head = ""
    for number, line in enumerate(open(path, encoding="utf-8"), 1):
        if raw:
            raw = ')"' not in line
            continue
        if 'R"(' in line and ')"' not in line.split('R"(', 1)[1]:
            raw = True
            line = line.split('R"(', 1)[0]
        code = without_text(line.rstrip("\n"))
        head = head + " " + code.strip() if head else code
        for c in code:
            if c == "{":
                function = bool(STARTS.match(head.split("{")[0] + "{")) if "{" in head else False
                open_at.append((number, function, head.strip()))
                depth += 1
            elif c == "}":
                depth -= 1
                if not open_at:
                    continue
                first, function, name = open_at.pop()
                if function:
                    yield first, number - first + 1, name
        if code.rstrip().endswith((";", "{", "}", ":")) or not code.strip() or code.startswith("#"):
            head = ""


def types(path):
    """Every class, struct and enum with its namespaces that other sources of a program could have too."""
    within = []  # namespaces that are open; "" for those without a name
    for number, line in enumerate(open(path, encoding="utf-8"), 1):
        if opens := re.match(r"(?:inline )?namespace ?([\w:]*) ?\{$", line):
            within.append(opens[1])
        elif re.match(r"\}\s*// namespace", line):
            within.pop()
        elif "" not in within and (one := re.match(r"(?:class|struct|enum class|enum) (\w+)[^;]*\{", line)):
            yield number, "::".join([*within, one[1]])


def twice_named(paths):
    """Two types of one name in two sources are two definitions of one type: whichever of its functions
    the linker takes serves both."""
    first = {}
    for path in paths:
        for number, name in types(path):
            if name.startswith("hinge") and first.setdefault(name, path) != path:
                yield f"{path}:{number}: {name} is defined in {first[name]} too"


def main():
    sources = listed("*.cpp", "*.h")
    found = []
    for path in sources:
        for number, line in enumerate(open(path, encoding="utf-8"), 1):
            if len(line.rstrip("\n")) > COLUMNS:
                found.append(f"{path}:{number}: {len(line) - 1} columns, {COLUMNS} at most")
        for first, length, name in functions(path):
            if length > LINES:
                found.append(f"{path}:{first}: a function of {length} lines, {LINES} at most: {name[:60]}")
    found += twice_named([f for f in sources if f.startswith("src/")])
    off = subprocess.run(["clang-format", "--dry-run", *sources], capture_output=True, text=True)
    for path in sorted({m for m in re.findall(r"^([^:\n]+):\d+:\d+: warning", off.stderr, re.M)}):
        found.append(f"{path}: not as clang-format writes it (./dev format)")
    if len(sys.argv) == 3 and sys.argv[1] == "--tidy":
        found += tidied(changed_since(sys.argv[2]), 60)
    if len(sys.argv) == 3 and sys.argv[1] == "--tidy-for":
        found += tidied(latest_first(), float(sys.argv[2]))
    print("\n".join(found) if found else f"{len(sources)} sources: nothing to say")
    return 1 if found else 0


def sources_in(names):
    return [f for f in dict.fromkeys(names) if f.endswith(".cpp") and f.startswith("src/") and os.path.exists(f)]


def changed_since(base):
    changed = subprocess.run(["git", "diff", "--name-only", base, "--", "src"], capture_output=True, text=True)
    return sources_in(changed.stdout.split("\n"))


def latest_first():
    log = subprocess.run(["git", "log", "--name-only", "--format=", "--", "src"], capture_output=True, text=True)
    return sources_in(log.stdout.split("\n") + listed("src/*.cpp"))


def tidied(files, minutes):
    with tempfile.TemporaryDirectory() as folder:
        commands = json.load(open("build-lint/compile_commands.json", encoding="utf-8"))
        for entry in commands:  # clang cannot read the precompiled headers of g++: it gets their text
            entry["command"] = re.sub(r"-Winvalid-pch", "", entry["command"])
            if re.search(r"/src/(core|words)/", entry["file"]):  # these are to include what they use themselves
                entry["command"] = re.sub(r"-include \S*cmake_pch\.hxx", "", entry["command"])
            entry["command"] = re.sub(r"(?<=-include )\S*cmake_pch\.hxx", lambda m: copied(m[0], folder), entry["command"])
        json.dump(commands, open(os.path.join(folder, "compile_commands.json"), "w", encoding="utf-8"))
        return outputs_of(files, folder, time.monotonic() + 60 * minutes)


def copied(header, folder):
    copy = os.path.join(folder, header.strip("/").replace("/", "-"))
    if not os.path.exists(copy) and os.path.exists(header):
        shutil.copyfile(header, copy)
    return copy


def outputs_of(files, folder, end):
    def one(path):
        if time.monotonic() > end:
            return None
        return subprocess.run(["clang-tidy", "--quiet", "-p", folder, path], capture_output=True, text=True).stdout

    with concurrent.futures.ThreadPoolExecutor(os.cpu_count()) as pool:
        outputs = [text for text in pool.map(one, files) if text is not None]
    print(f"clang-tidy: {len(outputs)} of {len(files)} sources", file=sys.stderr)
    lines = [line for text in outputs for line in text.split("\n")]
    return sorted({line for line in lines if re.search(r": (warning|error): ", line) and "/src/" in line})


sys.exit(main())
