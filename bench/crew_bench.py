#!/usr/bin/env python3
"""Several processes beside one: a building of many rooms, computed by 1, 2, 4 and 8 of them on this machine.

    bench/crew_bench.py build/release/src/glowgrid [ROOMS] [PHOTOMETRY]

Tells for each the time, how many times as fast it is as one process with one thread, processor time per room, bytes
to and fro, and the memory of the largest process; and holds the results against each other, byte for byte.
"""
import os
import re
import resource
import shutil
import subprocess
import sys
import tempfile
import time
from pathlib import Path

PROGRAM = str(Path(sys.argv[1]).resolve())
ROOMS = int(sys.argv[2]) if len(sys.argv) > 2 else 300
PHOTOMETRY = Path(sys.argv[3] if len(sys.argv) > 3 else Path(__file__).parent.parent / "demo/photometry")

ENVIRONMENT = {**os.environ, "OMPI_ALLOW_RUN_AS_ROOT": "1", "OMPI_ALLOW_RUN_AS_ROOT_CONFIRM": "1"}
# Started by mpirun in place of the program: tells how much memory that took.
WRAPPER = """
import resource, subprocess, sys
code = subprocess.call(sys.argv[1:])
print("peak", resource.getrusage(resource.RUSAGE_CHILDREN).ru_maxrss, file=sys.stderr)
sys.exit(code)
"""


def building():
    text = """format = 1
[project]
name = "Building"
standard = "EN 12464-1:2021"
[defaults]
maintenance_factor = 0.8
reflectance = { ceiling = 0.7, walls = 0.5, floor = 0.2 }
[luminaires.P1]
file = "photometry/tarnfell-p1.ldt"
"""
    for k in range(ROOMS):
        width, depth = 3 + k * 7 % 6, 3 + k * 3 % 4
        text += f"""
[[rooms]]
name = "R{k:04}"
size = [{width}, {depth}]
height = 2.8
task = "office.filing"
[[rooms.luminaires]]
mark = "P1"
mounting = "suspended"
suspension = 0.5
array = {{ rows = {2 if depth > 4 else 1}, columns = {max(1, width // 2)} }}
"""
    return text


def run(folder, processes, threads):
    command = ["mpirun", "--oversubscribe", "--bind-to", "none", "-np", str(processes)] if processes > 1 else []
    command += [sys.executable, "-c", WRAPPER, PROGRAM, "run", "building.toml", "--no-cache", "--no-views",
                "--threads", str(threads), "-o", f"by{processes}x{threads}"]
    before, begin = resource.getrusage(resource.RUSAGE_CHILDREN), time.time()
    ran = subprocess.run(command, cwd=folder, env=ENVIRONMENT, stdout=subprocess.DEVNULL, stderr=subprocess.PIPE, text=True)
    took, after = time.time() - begin, resource.getrusage(resource.RUSAGE_CHILDREN)
    if ran.returncode > 1:
        sys.exit(ran.stderr)
    sent = re.search(r"([0-9.]+) MB to and fro", ran.stderr)
    peaks = [int(kilobytes) for kilobytes in re.findall(r"peak (\d+)", ran.stderr)]
    cpu = after.ru_utime + after.ru_stime - before.ru_utime - before.ru_stime
    return took, cpu, float(sent.group(1)) if sent else 0, max(peaks) / 1024


def main():
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        (folder / "building.toml").write_text(building())
        shutil.copytree(PHOTOMETRY, folder / "photometry")
        alone = None
        print(f"{ROOMS} rooms on {os.cpu_count()} processors")
        print(f"{'processes':>9} {'threads':>7} {'s':>7} {'times':>6} {'ms/room':>8} {'MB sent':>8} {'MB peak':>8}")
        for processes, threads in [(1, 1), (1, os.cpu_count()), (2, 1), (4, 1), (8, 1)]:
            took, cpu, sent, peak = run(folder, processes, threads)
            alone = alone or took
            print(f"{processes:>9} {threads:>7} {took:>7.1f} {alone / took:>6.2f} {1000 * cpu / ROOMS:>8.1f} "
                  f"{sent:>8.1f} {peak:>8.0f}", flush=True)
            one, other = folder / "by1x1", folder / f"by{processes}x{threads}"
            if subprocess.call(["diff", "-rq", one, other]) != 0:
                sys.exit("the results differ")


main()
