#!/usr/bin/env python3
"""One program that runs a thousand times: memory and open files must not grow.

    tests/soak/many_runs.py PROGRAM FOLDER [--runs N]

Saves a small project in FOLDER again and again, with another dimming each time, while `run --watch` looks at it. What
the process holds after a tenth of the runs is held against what it holds at the end.
"""
import argparse
import os
import pathlib
import shutil
import subprocess
import sys
import time

ROOT = pathlib.Path(__file__).resolve().parents[2]
PROJECT = """format = 1
[project]
name = "Many runs"
standard = "EN 12464-1:2021"
[luminaires.D2]
file = "quillon-d2.ies"
cct = 4000
[[rooms]]
name = "Closet"
size = [3, 2]
height = 2.6
reflectance = {{ ceiling = 0.7, walls = 0.5, floor = 0.2 }}
maintenance_factor = 0.8
task = "circulation.corridor"
[[rooms.luminaires]]
mark = "D2"
at = [1.5, 1]
dimming = {:.3f}
"""
GROWTH_KB, GROWTH_FILES = 8192, 2


def written_at(path):
    try:
        return path.stat().st_mtime_ns
    except FileNotFoundError:  # a run is being put in its place
        return 0


def held(process):
    status = pathlib.Path(f"/proc/{process}/status").read_text()
    resident = next(int(line.split()[1]) for line in status.splitlines() if line.startswith("VmRSS"))
    return resident, len(os.listdir(f"/proc/{process}/fd"))


def main():
    parser = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    parser.add_argument("program")
    parser.add_argument("folder")
    parser.add_argument("--runs", type=int, default=1000)
    wish = parser.parse_args()
    folder = pathlib.Path(wish.folder)
    folder.mkdir(parents=True, exist_ok=True)
    shutil.copy(ROOT / "demo/photometry/quillon-d2.ies", folder)
    project, results = folder / "many.toml", folder / "many-results/results.json"
    project.write_text(PROJECT.format(1))
    watching = subprocess.Popen([os.path.abspath(wish.program), "run", "many.toml", "--watch", "--accuracy", "draft",
                                 "--no-views", "-q"], cwd=folder, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)
    early, last = None, 0
    try:
        for k in range(wish.runs + 1):
            begin = time.monotonic()
            while written_at(results) in (0, last):
                if watching.poll() is not None or time.monotonic() > begin + 60:
                    print(f"run {k} did not come")
                    return 1
                time.sleep(0.02)
            last = written_at(results) or last
            if k == wish.runs // 10:
                early = held(watching.pid)
            if k % max(1, wish.runs // 10) == 0:
                print("after {} runs: {} kB, {} files".format(k, *held(watching.pid)), flush=True)
            late = held(watching.pid)
            time.sleep(0.05)  # the project is read before it is saved again
            project.write_text(PROJECT.format(0.2 + 0.8 * (k % 97) / 97))
    finally:
        watching.terminate()
        watching.wait()
    grown = late[0] - early[0], late[1] - early[1]
    print(f"grown by {grown[0]} kB and {grown[1]} files from run {wish.runs // 10} to {wish.runs}")
    return 1 if grown[0] > GROWTH_KB or grown[1] > GROWTH_FILES else 0


if __name__ == "__main__":
    sys.exit(main())
