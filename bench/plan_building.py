#!/usr/bin/env python3
"""A building from its drawings to its verdicts: what importing and computing N rooms takes, against a tenth of them in
the same run; and what importing a large drawing takes, against reading the same bytes line by line in Python.

    bench/plan_building.py build/release/src/glowgrid [ROOMS] [MEGABYTES]
"""
import os, resource, subprocess, sys, tempfile, time

PER_FLOOR = 30


class Drawing:
    def __init__(self):
        self.parts = ["0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70\n4\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n"]

    def polyline(self, layer, points):
        corners = "".join(f"10\n{x}\n20\n{y}\n" for x, y in points)
        self.parts.append(f"0\nLWPOLYLINE\n8\n{layer}\n90\n{len(points)}\n70\n1\n{corners}")

    def text(self, layer, x, y, words):
        self.parts.append(f"0\nTEXT\n8\n{layer}\n10\n{x}\n20\n{y}\n40\n200\n1\n{words}\n")

    def line(self, layer, a, b):
        self.parts.append(f"0\nLINE\n8\n{layer}\n10\n{a[0]}\n20\n{a[1]}\n11\n{b[0]}\n21\n{b[1]}\n")

    def write(self, path):
        with open(path, "w", encoding="ascii") as file:
            file.writelines(self.parts + ["0\nENDSEC\n0\nEOF\n"])


def floor(path, number, rooms):
    """Offices on both sides of a corridor, no two alike."""
    drawing, x = Drawing(), 0
    for k in range(rooms):
        width, deep = 3000 + 97 * ((k * 37 + number) % 20), 4200 + 61 * ((k * 53 + number) % 20)
        y = 0 if k % 2 == 0 else 8000
        drawing.polyline("ROOM", [(x, y), (x + width, y), (x + width, y + deep), (x, y + deep)])
        drawing.text("ROOM", x + 900, y + 2000, f"Office {number}.{k + 1:02}")
        x += 5200 if k % 2 else 0
    drawing.write(path)


def timed(*words):
    begin = time.monotonic()
    subprocess.run(words, check=True, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)
    return time.monotonic() - begin


def building(program, folder, rooms):
    files = []
    for number in range(-(-rooms // PER_FLOOR)):
        files.append(f"floor-{number}.dxf")
        floor(os.path.join(folder, files[-1]), number, min(PER_FLOOR, rooms - number * PER_FLOOR))
    project = os.path.join(folder, "building.toml")
    os.chdir(folder)
    taken = timed(program, "import", *files, "-o", project, "--rooms", "ROOM", "-q")
    with open(project, "a", encoding="utf-8") as file:
        file.write('\n[luminaires.P1]\nfile = "tarnfell-p1.ldt"\n\n[[settings]]\n[[settings.luminaires]]\nmark = "P1"\n'
                   'array = { rows = 2, columns = 2 }\nmounting = "suspended"\nsuspension = 0.5\n')
    ran = timed(program, "run", project, "-q", "--no-views", "--no-cache")
    return taken, ran


def main():
    program, here = os.path.abspath(sys.argv[1]), os.path.dirname(os.path.abspath(__file__))
    rooms = int(sys.argv[2]) if len(sys.argv) > 2 else 300
    megabytes = int(sys.argv[3]) if len(sys.argv) > 3 else 50
    file = os.path.join(here, "../demo/photometry/tarnfell-p1.ldt")
    results = {}
    for count in (rooms // 10, rooms):
        with tempfile.TemporaryDirectory() as folder:
            subprocess.run(["cp", file, folder], check=True)
            results[count] = building(program, folder, count)
            peak = resource.getrusage(resource.RUSAGE_CHILDREN).ru_maxrss / 1024
            print(f"{count:5} rooms: import {results[count][0]:.2f} s, run {results[count][1]:.1f} s, "
                  f"peak memory {peak:.0f} MB", flush=True)
            os.chdir(here)
    few, many = results[rooms // 10], results[rooms]
    print(f"time of ten times the rooms: import {many[0] / few[0]:.1f}, run {many[1] / few[1]:.1f} times (linear: 10)")
    with tempfile.TemporaryDirectory() as folder:
        path, drawing = os.path.join(folder, "large.dxf"), Drawing()
        drawing.polyline("ROOM", [(0, 0), (6000, 0), (6000, 4000), (0, 4000)])
        drawing.text("ROOM", 2000, 2000, "Hall")
        size, k = 0, 0
        while size < megabytes * 1e6:
            a, b = (k % 5000 * 13, k // 5000 * 17), (k % 5000 * 13 + 900, k // 5000 * 17 + 31)
            drawing.line(f"LAYER-{k % 40}", a, b)
            size += len(drawing.parts[-1])
            k += 1
        drawing.write(path)
        taken = timed(program, "import", path, "-o", os.path.join(folder, "p.toml"), "--rooms", "ROOM")
        begin = time.monotonic()
        with open(path, "rb") as file:
            lines = sum(1 for line in file if line.strip())
        plain = time.monotonic() - begin
        peak = resource.getrusage(resource.RUSAGE_CHILDREN).ru_maxrss / 1024
        print(f"drawing of {os.path.getsize(path) / 1e6:.0f} MB, {lines} lines: import {taken:.2f} s, "
              f"{taken / plain:.1f} times Python reading its lines; peak memory so far {peak:.0f} MB")


main()
