#!/usr/bin/env python3
"""Imports meshes of rooms broken at random, by the built program: meshes are read in a process of their own, which
a fuzzer inside the program would not see.

usage: broken_meshes.py GLOWGRID SECONDS SEED MESH...

Every import must write a project and end with 0, or write none, say why and end with 1 or 2. What breaks that is
kept beside the call, and the script ends with 1.
"""
import collections
import pathlib
import random
import shutil
import subprocess
import sys
import tempfile
import time

WORDS = [b"nan", b"inf", b"1e308", b"-1", b"0", b"999999999", b"f 1 2 3\n", b"usemtl glass\n", b"g door\n", b"\0",
         b'"', b"[", b"}", b"/", b"../../outside"]
LONGEST_S = 30


def broken(data, dice):
    data = bytearray(data)
    for _ in range(dice.choice([1, 1, 2, 4, 16])):
        at = dice.randrange(len(data) + 1)
        way = dice.randrange(5)
        if way == 0 and data:
            data[min(at, len(data) - 1)] = dice.randrange(256)
        elif way == 1:
            data[at:at] = dice.choice(WORDS)
        elif way == 2:
            del data[at:at + dice.randrange(1, 60)]
        elif way == 3:
            to = dice.randrange(len(data) + 1)
            data[to:to] = data[at:at + dice.randrange(1, 200)]
        elif dice.random() < 0.2:
            del data[at:]
    return bytes(data)


def fault_of_import(glowgrid, mesh):
    """What is wrong with how the import of `mesh` ended, or nothing; and its exit code."""
    project = mesh.with_name("project.toml")
    try:
        done = subprocess.run([glowgrid, "import", mesh, "--unit", "m", "-o", project], capture_output=True,
                              timeout=LONGEST_S)
    except subprocess.TimeoutExpired:
        return f"longer than {LONGEST_S} s", None
    if done.returncode not in (0, 1, 2):
        return f"ended with {done.returncode}", done.returncode
    if (done.returncode == 0) != project.exists():
        return f"ended with {done.returncode}, project written: {project.exists()}", done.returncode
    if done.returncode != 0 and not done.stderr:
        return "refused without a word", done.returncode
    return None, done.returncode


def main():
    glowgrid, seconds, seed = sys.argv[1], float(sys.argv[2]), int(sys.argv[3])
    meshes = [pathlib.Path(name) for name in sys.argv[4:]]
    dice = random.Random(seed)
    ends, faults = collections.Counter(), 0
    until = time.monotonic() + seconds
    while time.monotonic() < until:
        chosen = dice.choice(meshes)
        with tempfile.TemporaryDirectory() as folder:
            mesh = pathlib.Path(folder) / ("room" + chosen.suffix)
            mesh.write_bytes(broken(chosen.read_bytes(), dice))
            fault, code = fault_of_import(glowgrid, mesh)
            ends[code] += 1
            if fault:
                faults += 1
                kept = f"broken-{seed}-{faults}{chosen.suffix}"
                shutil.copy(mesh, kept)
                print(f"{kept}: {fault}", flush=True)
    print(f"{sum(ends.values())} imports, exit codes {dict(ends)}, {faults} faults")
    return 1 if faults else 0


if __name__ == "__main__":
    sys.exit(main())
