#!/usr/bin/env python3
# SPDX-License-Identifier: GPL-3.0-or-later
"""How many small faults of the core do the tests notice?

faults.py plant TREE                 puts every fault into the sources of TREE, a copy, all at once:
                                     each behind a switch (see faults.h)
faults.py try TREE MINUTES [SEED]    switches them on one at a time, by chance; runs the test
                                     functions that meet the fault, the quick ones first, until one
                                     fails; tells which nobody noticed

`./dev faults MINUTES SEED` does both. To build for each fault would take most of the time: so some
of them are tried in a minute. A fault whose other way does not compile is none; one that no test
meets is not noticed (all of those are listed in TREE/not-met.txt). Survivors are places to look at:
a missing test, dead code, or a change that makes none.
"""
import glob, json, os, random, re, signal, subprocess, sys, tempfile, time
from concurrent.futures import ThreadPoolExecutor

HERE = os.path.dirname(os.path.abspath(__file__))
BINARY = {' < ': 'Less', ' > ': 'Greater', ' <= ': 'AtMost', ' >= ': 'AtLeast', ' + ': 'Plus',
          ' - ': 'Minus', ' == ': 'Same', ' != ': 'Other', ' * ': 'Times'}
WORDS = {'std::max(': '::faults::larger<%d>(', 'std::min(': '::faults::smaller<%d>(',
         'std::cos(': '::faults::cosine<%d>(', 'true': '::faults::yes<%d>()'}
PLACES = re.compile(r' (?:<=?|>=?|==|!=|\+|-|\*|&&|\|\|) |std::(?:max|min|cos)\(|\btrue\b')
# What is worked out by the compiler cannot be switched; heads of loops only run on and on.
NEVER = re.compile(r'static_assert|if constexpr|\brequires\b|\bconcept\b|for \(|template')
# Minutes for each fault: only for those that all others leave.
SLOW = {'test_random_designs', 'test_window'}
# It times what the window does, which says nothing here.
TIMED = {'test_stalls'}


def switched(word, fault):
    if word in BINARY: return f'{word}::faults::{BINARY[word]}<{fault}>{{}}{word}'
    if word in WORDS: return WORDS[word] % fault
    name = 'and' if word == ' && ' else 'or'
    return f' && ::faults::{name}Left<{fault}>() || ::faults::{name}Right<{fault}>() && '


def plant(tree):
    faults = []
    for name in sorted(glob.glob(tree + '/src/core/**/*.cpp', recursive=True)):
        lines = open(name).read().split('\n')
        for number, line in enumerate(lines):
            code = line.split('//')[0]
            if code.lstrip().startswith('#') or NEVER.search(code): continue
            new, at = '', 0
            for hit in PLACES.finditer(code):
                if code[:hit.start()].count('"') % 2: continue
                new += line[at:hit.start()] + switched(hit.group(), len(faults))
                at = hit.end()
                faults.append({'where': f'{os.path.relpath(name, tree)}:{number + 1}',
                               'was': hit.group().strip(), 'line': line.strip()[:110]})
            lines[number] = new + line[at:]
        text = '#include "core/faults/faults.h"\n#line 1\n' + '\n'.join(lines)
        open(name, 'w').write(text)
    os.makedirs(tree + '/src/core/faults', exist_ok=True)
    source = open(HERE + '/faults.cpp.in').read().replace('@COUNT@', str(len(faults)))
    open(tree + '/src/core/faults/faults.cpp', 'w').write(source)
    open(tree + '/src/core/faults/faults.h', 'w').write(open(HERE + '/faults.h').read())
    json.dump(faults, open(tree + '/faults.json', 'w'))
    print(f'{len(faults)} faults')


def end_group(program):
    try: os.killpg(program.pid, signal.SIGKILL)
    except ProcessLookupError: pass


class Tests:
    """The test functions, how long each takes, and which faults it meets."""

    def __init__(self, tree, count):
        self.folder, self.count = tree + '/build/bin/', count
        self.seconds, self.meeting, self.possible = {}, {}, set()
        programs = [p for p in sorted(os.listdir(self.folder)) if p.startswith('test_')]
        wanted = [(p, f) for p in programs if p not in TIMED for f in self.functions(p)]
        with ThreadPoolExecutor(os.cpu_count()) as threads:
            list(threads.map(self.measure, wanted))
        for tests in self.meeting.values():
            tests.sort(key=lambda test: self.seconds[test])

    def functions(self, program):
        told = self.run((program, '-functions'), 60, {})[1]
        names = [line.strip()[:-2] for line in told.split('\n') if line.strip().endswith('()')]
        rows = self.run((program, '-datatags'), 60, {})[1]
        for name in list(names):
            # Each card by itself: one that is met soon spares the others.
            own = re.findall(rf'\b{name} (\S+)$', rows, re.M) if 'WhatThey' in name else []
            if own: names.remove(name); names += [f'{name}:{row}' for row in own]
        return names

    def run(self, test, most, env):
        env = {**os.environ, 'QT_QPA_PLATFORM': 'offscreen', **env}
        # A group of its own: what a test has started must not run on when its time is over.
        with subprocess.Popen([self.folder + test[0], test[1]], stdout=subprocess.PIPE,
                              stderr=subprocess.DEVNULL, text=True, errors='replace', env=env,
                              start_new_session=True) as program:
            try:
                told = program.communicate(timeout=most)[0]
                return program.returncode, told
            except subprocess.TimeoutExpired:
                return -1, ''
            finally:
                end_group(program)

    def measure(self, test):
        with tempfile.TemporaryDirectory() as folder:
            begin = time.time()
            failed = self.run(test, 400, {'HINGE_FAULTS_MET': folder + '/met'})[0]
            if failed: return print(f'fails without a fault, left out: {" ".join(test)}')
            self.seconds[test] = time.time() - begin
            met = set()
            for name in glob.glob(folder + '/met.*'):
                data = open(name, 'rb').read()
                self.possible |= {k for k, one in enumerate(data) if one & 1}
                met |= {k for k, one in enumerate(data) if one & 2}
        for fault in met: self.meeting.setdefault(fault, []).append(test)

    def notices(self, fault, slow):
        """The first test that fails with the fault; None: all of them pass."""
        for test in self.meeting.get(fault, []):
            if (test[0] in SLOW) != slow: continue
            most = max(10, 6 * self.seconds[test] + 5)
            if self.run(test, most, {'HINGE_FAULT': str(fault)})[0]: return test
        return None


def place(fault):
    return f'{fault["where"]} {fault["was"]} | {fault["line"]}'


def tryout(tree, minutes, seed):
    faults = json.load(open(tree + '/faults.json'))
    tests = Tests(tree, len(faults))
    wanted = sorted(tests.possible)
    print(f'{len(tests.seconds)} test functions; {len(wanted)} of {len(faults)} faults compile, '
          f'{len(tests.meeting)} are met', flush=True)
    with open(tree + '/not-met.txt', 'w') as out:
        for fault in sorted(tests.possible - set(tests.meeting)):
            out.write(place(faults[fault]) + '\n')
    random.seed(seed)
    random.shuffle(wanted)
    end, tried, left = time.time() + 60 * minutes, [], []

    def told(how, fault):
        print(how, place(faults[fault]), flush=True)

    def quick(fault):
        if time.time() > end: return
        tried.append(fault)
        if tests.notices(fault, slow=False) is not None: return
        left.append(fault)
        told('left to the slow ones:', fault)

    def slow(fault):
        by = tests.notices(fault, slow=True)
        missed = 'SURVIVED' if fault in tests.meeting else 'NOT MET'
        told(f'noticed by {by[0]} alone:' if by else missed, fault)
        return by is not None

    with ThreadPoolExecutor(os.cpu_count()) as threads:
        list(threads.map(quick, wanted))
        print(f'{len(tried) - len(left)} of {len(tried)} noticed without {", ".join(sorted(SLOW))}',
              flush=True)
        late = sum(threads.map(slow, left))
    print(f'{len(tried) - len(left) + late} of {len(tried)} noticed')


if len(sys.argv) == 3 and sys.argv[1] == 'plant': plant(os.path.abspath(sys.argv[2]))
elif len(sys.argv) in (4, 5) and sys.argv[1] == 'try':
    tryout(os.path.abspath(sys.argv[2]), float(sys.argv[3]), int((sys.argv + ['1'])[4]))
else: sys.exit(__doc__)
