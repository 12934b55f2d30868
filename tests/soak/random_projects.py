#!/usr/bin/env python3
"""Random projects, run through the program: nothing may crash, hang, or come out negative.

    tests/soak/random_projects.py PROGRAM FOLDER [--first SEED] [--count N] [--minutes M] [--limit S] [--run]

Every seed makes one project in FOLDER: valid, nearly valid or wild, with every key now and then. `check` reads
it and, with --run, `run --accuracy draft` computes what check lets pass. What broke the program stays in FOLDER as
seed-N.toml; the last line counts. The photometric files are those of demo/ and tests/photometry/.
"""
import argparse
import json
import os
import pathlib
import random
import shutil
import subprocess
import sys
import time

ROOT = pathlib.Path(__file__).resolve().parents[2]
TASKS = ["ceramics.glazing", "retail.sales-area", "circulation.corridor", "education.board", "foundry.hand-moulding",
         "office.writing", "health.waiting-room", "office.meeting-room"]
FURNITURE = ["table", "desk", "bench", "shelf rack", "cabinet", "board", "partition", "column", "bed", "platform"]
ODD = ["1e19", "-1", "0", "1e-300", "nan", '"12 parsec"', '"39.3701 in"', "[1]", "true", '""', '"\\u001b[31m"', "9" * 40]


class Maker:
    """One project. `wildness`: 0 valid, 1 a few odd values, 2 many."""

    def __init__(self, seed, files):
        self.r = random.Random(seed)
        self.files = files
        self.wildness = self.r.choice([0, 0, 0, 1, 2])

    def number(self, low, high, digits=2):
        if self.r.random() < [0, 0.02, 0.15][self.wildness]:
            return self.r.choice(ODD)
        if self.r.random() < [0, 0.02, 0.1][self.wildness]:
            return f"{self.r.uniform(-3 * abs(high) - 1, 3 * abs(high) + 1):.{digits}f}"
        value = self.r.uniform(low, high)
        return f"{value:.{digits}f}"

    def length(self, low, high):
        value = self.number(low, high)
        plain = value.replace(".", "").replace("-", "").isdigit()
        return f'"{float(value) / 0.3048:.3f} ft"' if plain and self.some(0.03) else value

    def point(self, x, y, z=None):
        return "[" + ", ".join(self.length(*each) for each in [x, y, *([z] if z else [])]) + "]"

    def some(self, share):
        return self.r.random() < share

    def name(self, base):
        return f'"{base}{self.r.choice(["", "", " (x)", " & <co>", " ü"])}"'

    def text(self):
        out = ["format = 1", "[project]", f"name = {self.name('Soak')}"]
        if self.some(0.8):
            out.append('standard = "EN 12464-1:2021"')
        if self.some(0.3):
            out.append('also_verify = ["EN 12464-1:2011"]')
        if self.some(0.1):
            out.append('units = "fc, m"')
        out += ["[defaults]", "maintenance_factor = " + self.number(0.5, 1)]
        if self.some(0.7):
            out.append("reflectance = { ceiling = %s, walls = %s, floor = %s }" %
                       tuple(self.number(0.05, 0.9) for _ in range(3)))
        marks = []
        for k in range(self.r.randint(1, 3)):
            marks.append(f"M{k}")
            out += [f"[luminaires.M{k}]", f'file = "photometry/{self.r.choice(self.files)}"']
            if self.some(0.3):
                out.append("flux = " + self.number(100, 20000, 0))
            if self.some(0.5):
                out.append("cct = 4000")
            if self.some(0.2):
                out.append("lamp_luminance = " + self.number(1000, 900000, 0))
                out.append("shielding = " + self.number(0, 40))
            if self.some(0.15):
                out.append("maintenance = { lamp_flux = 0.9, luminaire = 0.8, lamp_hours = 50000 }")
        self.own = self.some(0.4)
        if self.own:
            out += ['[materials."own one"]', "reflectance = " + self.number(0, 0.5), "mirror = " + self.number(0, 0.2),
                    "transmittance = " + self.number(0, 0.2)]
            if self.some(0.5):
                out.append("scattering = " + self.number(0, 0.1))
        if self.own and self.some(0.5):
            out.append('colour = "#c09878"')
        if self.some(0.4):
            out += self.daylight()
        if self.some(0.2):
            out += ["[figures]", "steps = " + self.number(2, 20, 0), "isolux = [%s]" % self.number(50, 500, 0),
                    f'limits = [{self.number(10, 100, 0)}, {self.number(200, 2000, 0)}]', 'scale = "log"',
                    f'values = "{self.r.choice(["none", "fitting", "all"])}"', "lines = false", "tint = true", "common_scale = true"]
        if self.some(0.3):
            out += ["[scenes.part]", "rest = " + self.number(0, 1)]
            if self.some(0.4):
                out.append("groups = { %s = %s }" % (self.r.choice(marks), self.number(0, 1)))
        if self.some(0.25):
            out += self.year()
        if self.some(0.3):
            out += self.energy()
        for k in range(self.r.randint(1, 2)):
            out += self.room(k, marks)
        if self.some(0.25):
            out += self.outdoors(marks)
        return "\n".join(out) + "\n"

    def hours(self):
        start = self.r.randint(0, 20)
        days = self.r.choice(["every day", "Monday to Friday", "Saturday"])
        off = ', holidays = ["12-24 to 01-06", "05-01"]' if self.some(0.3) else ""
        return f'{{ days = "{days}", from = "{start}:00", to = "{self.r.randint(start + 1, 24)}:00"{off} }}'

    def year(self):
        """A year of daylight; every file of weather is whole."""
        out = ["[year]", f'weather = "{self.r.choice(["w.epw", "w.csv"])}"', "levels = " + self.number(100, 1000, 0)]
        if self.some(0.6):
            out.append("hours = " + self.hours())
        if self.some(0.3):
            out.append('blinds = { states = ["then"], sun = %s, share = %s }' % (self.number(100, 5000, 0), self.number(0, 0.2)))
        if self.some(0.3):
            out.append('times.some = { months = "November to February", from = "8:00", to = "10:00", within = [%s, %s] }' %
                       (self.number(50, 300, 0), self.number(500, 5000, 0)))
        return out

    def energy(self):
        out = ["[energy]", "price = " + self.number(0, 1), "co2 = " + self.number(0, 1)]
        if self.some(0.7):
            out.append("hours = " + (self.hours() if self.some(0.7) else 
                                      '[{ days = "Monday", from = "6:00", to = "9:00" }, { days = "Monday", from = "9:00", to = "20:00" }]'))
        if self.some(0.4):
            out.append('days = ["03-21", "12-12"]')
        return out

    def outdoors(self, marks):
        """An area with neighbours."""
        x, y = (0, self.r.uniform(3, 40)), (0, self.r.uniform(3, 30))
        out = ["[spill_light]"]
        if self.some(0.7):
            out.append(f'zone = "E{self.r.randint(1, 4)}"')
        if self.some(0.4):
            out.append(f'small_angles = "{self.r.choice(["as they are", "1e-6 sr", "one minute of arc"])}"')
        if self.some(0.3):
            out += ['standards = ["EN 12464-2", "CIE 150"]', f'installation = "{self.r.choice(["road", "amenity", "sports"])}"']
        out += ["[[outdoors]]", 'name = "Yard"', f"size = [{x[1]:.2f}, {y[1]:.2f}]", "ground = " + self.ground(x, y)]
        if self.some(0.6):
            out.append('task = "%s"' % self.r.choice(["outdoor.crossing", "outdoor.walkway", "outdoor.vehicles"]))
        if self.some(0.5):
            out.append("hours = " + self.hours())
        for _ in range(self.r.randint(1, 3)):
            own = self.luminaires(marks, x, y, 8)
            while self.wildness == 0 and any(line.startswith("on_wall") for line in own):
                own = self.luminaires(marks, x, y, 8)
            out += [line.replace("[[rooms.", "[[outdoors.") for line in own
                    if not line.startswith(("mounting_height", "suspension"))]
            out.append("mounting_height = " + self.number(2, 12))
            if self.some(0.3):
                out.append("shield = " + self.number(20, 88))
        for i in range(self.r.randint(0, 2)):
            out += [line.replace("[[rooms.", "[[outdoors.") for line in self.thing(i, x, y, 8)]
        if self.some(0.4):
            out += ["[outdoors.scenes.late]", "rest = " + self.number(0, 1), "hours = " + self.hours()]
        if self.some(0.3):
            out += ["[[outdoors.road_users]]", "at = " + self.point((-20, 60), (-20, 50), (1, 2)),
                    "azimuth = " + self.number(0, 360), "road_luminance = " + self.number(0.1, 10)]
        for k in range(self.r.randint(0, 3)):
            out += ["[[neighbours]]", f'name = "n{k}"']
            kind = self.r.random()
            if kind < 0.6:
                out += ["at = " + self.point((-30, 70), (-30, 60), (0.5, 12)), "azimuth = " + self.number(0, 360)]
                if self.some(0.5):
                    out.append("size = " + self.point((0.5, 2), (0.5, 2)))
            elif kind < 0.85:
                out.append("facade = { from = %s, to = %s, top = %s, spacing = %s }" %
                           (self.point((-30, 70), (40, 60)), self.point((-30, 70), (40, 60)), self.number(2, 15), self.number(0.5, 3)))
            else:
                out.append("area = { from = %s, to = %s, spacing = 2 }" % (self.point((50, 60), (0, 9)), self.point((61, 80), (10, 30))))
            if self.some(0.7):
                out.append('use = "%s"' % self.r.choice(["spa or hospital", "dwelling", "mixed", "business"]))
            if self.some(0.6):
                out.append("background = " + ('"computed"' if self.some(0.5) else self.number(0.01, 5)))
        return out

    def daylight(self):
        """A site, something outside, and moments."""
        out = ["[site]", "latitude = " + self.number(-60, 70), "longitude = " + self.number(-20, 20),
               "time_zone = " + self.number(0, 1, 0), "north = " + self.number(0, 360),
               "ground_reflectance = " + self.number(0, 0.9), "median_diffuse = " + self.number(5000, 25000, 0)]
        if self.some(0.6):
            out += ["[[site.obstructions]]", 'name = "outside"', "block = [%s, %s, %s]" %
                    (self.point((-20, -2), (-20, -2)), self.point((20, 30), (-20, -2)), self.point((0, 9), (-30, -21))),
                    "top = " + self.number(1, 30), "reflectance = " + self.number(0, 0.9)]
            if self.some(0.4):
                out.append('state = "then"')
        skies = ['sky = "overcast"\ndiffuse = ' + self.number(100, 30000, 0),
                 'sky = "clear"\ndate = "2026-06-21"\ntime = "12:00"',
                 f'sky = {self.r.randint(1, 15)}\ndiffuse = {self.number(100, 30000, 0)}\ndate = "2024-02-29"\n'
                 f'time = "{self.r.randint(7, 17):02}:30"\nsun = {self.number(0, 90000, 0)}',
                 'sky = "clear"\nturbidity = 3\nsun_at = [%s, %s]' % (self.number(5, 60), self.number(0, 360)),
                 'sky = "uniform"\ndiffuse = ' + self.number(0, 30000, 0),
                 'irradiance = { direct = %s, diffuse = %s }\ndate = "2025-03-01"\ntime = "10:15"' %
                 (self.number(0, 900, 0), self.number(1, 400, 0))]
        for k in range(self.r.randint(1, 3)):
            out += [f"[moments.m{k}]", self.r.choice(skies)]
            if self.some(0.2):
                out.append('states = ["then"]')
            if self.some(0.3):
                out.append("within = [100, 2000]")
        if self.some(0.3):
            out += ['[moments.day]', 'sky = "clear"', 'date = "2026-04-10"',
                    'series = { from = "04:00", to = "21:00", step = "45 min" }']
        return out

    def shades(self):
        """What hangs before an opening."""
        out = []
        state = ', state = "then"' if self.some(0.3) else ""
        if self.some(0.2):
            out.append(f"overhang = {{ depth = {self.number(0.1, 2)}, above = {self.number(0, 0.5)}{state} }}")
        if self.some(0.1):
            out.append(f"fins = {{ depth = {self.number(0.1, 2)}{state} }}")
        if self.some(0.15):
            out.append(f'slats = {{ depth = {self.number(0.03, 0.2)}, spacing = {self.number(0.05, 0.3)}, tilt = '
                       f'{self.number(-60, 60)}, direction = "{self.r.choice(["horizontal", "vertical"])}", distance = 0.2{state} }}')
        if self.some(0.15):
            out.append(f"screen = {{ transmittance = {self.number(0, 1)}, scattered = {self.number(0, 1)}{state} }}")
        if self.some(0.2):
            out.append(f"frame = {{ width = {self.number(0, 0.03)}, columns = {self.r.randint(1, 3)}, rows = {self.r.randint(1, 3)} }}")
        return out

    def room(self, k, marks):
        w, d, h = self.r.uniform(1.5, 12), self.r.uniform(1.2, 9), self.r.uniform(2.2, 6)
        x, y = (0.1, w - 0.1), (0.1, d - 0.1)
        out = ["[[rooms]]", f"name = {self.name(f'Room {k}')}"]
        shape = self.r.random()
        if 0.6 <= shape < 0.8:  # the inside of an L
            x, y = (0.1, w / 2 - 0.1), (0.1, d / 2 - 0.1)
        if shape < 0.6:
            out.append(f"size = [{self.number(w, w)}, {self.number(d, d)}]")
        elif shape < 0.8:
            out.append(f"outline = [[0, 0], [{w:.2f}, 0], [{w:.2f}, {d / 2:.2f}], [{w / 2:.2f}, {d / 2:.2f}], "
                       f"[{w / 2:.2f}, {d:.2f}], [0, {d:.2f}]]")
        else:
            out.append(f"outline = [{self.point((0, 0), (0, 0))}, {self.point((w, w), (0, d / 5))}, "
                       f"{self.point((w, w), (d, d))}, {self.point((0, w / 5), (d, d))}]")
            x, y = (w / 4, 3 * w / 4), (d / 4, 3 * d / 4)
        out.append("height = " + self.number(h, h))
        roofed = not self.some(0.1)
        if not roofed:
            out.append("roof = false")
        if self.some(0.7):
            out.append(f'task = "{self.r.choice(TASKS)}"')
        if self.some(0.2):
            out.append('verify = "%s"' % self.r.choice(["areas", "room"]))
        if self.some(0.1):
            out.append('posture = "%s"' % self.r.choice(["seated", "standing"]))
        if self.some(0.2):
            out.append("work_plane = { height = %s, inset = %s%s }" %
                       (self.number(0, 1.2), self.number(0, 1), ', leave_out = "objects"' if self.some(0.4) else ""))
        if self.some(0.1):
            out.append("surfaces = false")
        hung = []
        for _ in range(self.r.randint(0, 3)):
            hung += self.luminaires(marks, x, y, h, hangs=roofed)
        if self.some(0.1):
            named = [line[8:-1] for line in hung if line.startswith("mark = ")] if self.wildness == 0 else marks
            if named:
                out.append(f'glare = {{ screens = {{ leave_out = {{ {self.r.choice(named)} = "of no concern" }} }} }}')
        out += hung
        things = self.r.choice([0, 0, 1, 2, 4])
        for i in range(things):
            out += self.thing(i, x, y, h)
        if self.some(0.3):
            out += ["[[rooms.openings]]", 'name = "window"', f"wall = {self.r.randint(1, 3)}",
                    "from = " + self.number(0, 0.3), "width = " + self.number(0.2, 0.6),
                    "height = " + self.number(0.3, 1), "sill = " + self.number(0, 1)]
            if self.some(0.6):
                out.append('kind = "window"')
            if self.some(0.3):
                out.append('glazing = "%s"' % self.r.choice(["clear single", "clear double", "clear triple", "even"]))
            if self.some(0.2):
                out += ["transmittance = " + self.number(0, 0.4), "scattering = " + self.number(0, 0.4)]
            if self.some(0.3):
                out.append("reveal = " + self.number(0, 1))
            out += self.shades()
        if roofed and self.some(0.2):
            out += ["[[rooms.openings]]", 'name = "skylight"', f'kind = "{self.r.choice(["roof window", "dome", "opening"])}"',
                    "at = " + self.point(x, y), "width = " + self.number(0.2, 1.5), "length = " + self.number(0.2, 1.5)]
            out += self.shades()
            if self.some(0.3):
                out.append("rotation = " + self.number(-90, 90))
        if self.some(0.25):
            out += ["[rooms.daylight]", f'provision = "{self.r.choice(["minimum", "medium", "high"])}"',
                    f'sunlight = "{self.r.choice(["minimum", "high"])}"', f'view = "{self.r.choice(["minimum", "high"])}"']
            if self.some(0.2):
                out.append('states = ["then"]')
        lower = roofed and self.some(0.15)
        if lower:
            out += ["[[rooms.ceiling]]", f"over = [[0, 0], [{w / 2:.2f}, 0], [{w / 2:.2f}, {d:.2f}], [0, {d:.2f}]]",
                    "height = " + self.number(0.6 * h, 0.95 * h)]
        if roofed and not (lower and self.wildness == 0) and self.some(0.15):
            out += ["[[rooms.ceiling]]", f"from = {self.point((0, 0), (0, 0))}", f"to = {self.point((w, w), (d, d))}",
                    "height = " + self.number(0.7 * h, h), "to_height = " + self.number(0.7 * h, h)]
        if self.some(0.3):
            out += ["[[rooms.grids]]", 'name = "grid"', "rectangle = { at = %s, size = %s, rotation = %s, tilt = %s }" %
                    (self.point(x, y, (0, h)), self.point((0.2, 2), (0.2, 2)), self.number(0, 360), self.number(0, 180))]
        if self.some(0.2):
            out += ["[[rooms.areas]]", 'name = "area"', "rectangle = { at = %s, size = %s }" %
                    (self.point(x, y), self.point((0.3, 2), (0.3, 2))), f'task = "{self.r.choice(TASKS[:5])}"']
        if self.some(0.2):
            out += ["[[rooms.points]]", 'name = "point"', "at = " + self.point(x, y, (0, h))]
            if things > 1 and self.some(0.5):
                out.append('facing = "%s"' % self.r.choice(["down", "towards thing 0", "off thing 0", "thing 1"]))
        if self.some(0.2):
            out += ["[[rooms.escape_routes]]", "path = [%s, %s, %s]" % tuple(self.point(x, y) for _ in range(3))]
        if self.some(0.3):
            out += ["[[rooms.eyes]]", 'name = "eyes one"', "at = " + self.point(x, y),
                    "looking = " + self.number(0, 360)]
        if self.some(0.25):
            out += ["[[rooms.control]]", f'kind = "{self.r.choice(["none", "dimmed", "switched"])}"',
                    "target = " + self.number(100, 800, 0), "least_power = " + self.number(0, 0.3),
                    "standby = " + self.number(0, 5), "price = " + self.number(0, 500)]
        if self.some(0.3):
            out += ["[rooms.scenes.own]", "rest = " + self.number(0, 1)]
            if self.some(0.2):
                out.append("hours = " + self.hours())
            elif self.some(0.5):
                out += ["emergency = true", "battery = " + self.number(0.05, 1), "delay = " + self.number(0, 30)]
            elif self.some(0.3):
                out.append('task = "none"')
            elif self.some(0.3):
                out[-1] = 'solve = "least watts"'
        return out

    def ground(self, x, y):
        reflectance = self.number(0, 0.9)
        if self.some(0.7):
            return reflectance
        return (f"{{ reflectance = {reflectance}, slope = {{ from = {self.point(x, y)}, to = {self.point(x, y)}, "
                f"height = {self.number(-2, 2)}, to_height = {self.number(-3, 3)} }} }}")

    def luminaires(self, marks, x, y, h, hangs=True):
        out = ["[[rooms.luminaires]]", f'mark = "{self.r.choice(marks)}"']
        kind = self.r.randint(0, 4)
        if kind == 0:
            out.append("at = " + self.point(x, y))
        elif kind == 1:
            size = (f"spacing = {self.point((0.5, 3), (0.5, 3))}" if self.some(0.3) else
                    f"rows = {self.r.randint(1, 4)}, columns = {self.r.randint(1, 4)}")
            within = f", within = [{self.point(x, y)}, {self.point(x, y)}]" if self.some(0.3) else ""
            out.append(f"array = {{ {size}{within} }}")
        elif kind == 2:
            out.append(f"row = {{ from = {self.point(x, y)}, to = {self.point(x, y)}, count = {self.r.randint(2, 6)} }}")
        elif kind == 3:
            out.append(f"ring = {{ centre = {self.point(x, y)}, radius = {self.number(0.05, 1)}, count = 3 }}")
        else:
            out.append(f"on_wall = {{ wall = {self.r.randint(1, 4)}, from = {self.number(0, 2)} }}")
        if kind == 4 or not hangs or self.some(0.2):
            out.append("mounting_height = " + self.number(0.5, h))
        elif self.some(0.4):
            out.append("suspension = " + self.number(0.05, 0.4 * h))
        if self.some(0.2):
            out.append("rotation = " + self.number(-180, 360))
        if self.some(0.15):
            out.append("tilt = " + self.number(0, 90))
        elif self.some(0.1):
            out.append("aim = " + self.point(x, y, (0, h)))
        if self.some(0.2):
            out.append("dimming = " + self.number(0, 1))
        if self.some(0.2):
            out.append("blocks_light = true")
        return out

    def thing(self, i, x, y, h):
        out = ["[[rooms.objects]]", f'name = "thing {i}"']
        kind = self.r.random()
        if kind < 0.6:
            out += ["at = " + self.point(x, y), f'furniture = "{self.r.choice(FURNITURE)}"']
        elif kind < 0.65:
            out += ["at = " + self.point(x, y, (0, h)), "panel = " + self.point((0.1, 3), (0.1, h))]
        elif kind < 0.8:
            out += ["at = " + self.point(x, y, (0, h)), "box = " + self.point((0.1, 3), (0.1, 3), (0.1, h))]
        else:
            out += ["at = " + self.point(x, y, (0, h)), "cylinder = " + self.point((0.1, 1), (0.1, h))]
        if self.some(0.3):
            out.append("rotation = " + self.number(-180, 180))
        if self.some(0.3):
            out.append("repeat = { columns = %d, rows = %d, step = %s }" %
                       (self.r.randint(1, 4), self.r.randint(1, 3), self.point((0, 1.5), (0, 1.5))))
        if self.own and self.some(0.4):
            out.append('material = "own one"')
        return out


def fault_of(code, err, folder):
    """What is wrong with how the program ended; nothing: it held."""
    if code is None:
        return "took too long"
    if code < 0 or code >= 128:
        return f"ended by signal or abort ({code})"
    for words in ("Sanitizer", "runtime error", "internal failure", "came out wrong", "Assertion"):
        if words in err:
            return words
    results = folder / "out" / "results.json"
    if results.exists():
        for room in json.loads(results.read_text())["rooms"]:
            balance = room.get("flux_balance") or {}
            emitted = balance.get("emitted_lm") or 0
            rest = emitted - sum(balance.get(k) or 0 for k in ("absorbed_lm", "escaped_lm", "lost_lm"))
            for neighbour in (room.get("spill_light") or {}).get("neighbours", []):
                if neighbour["k"] is None or neighbour["k"] < 0:
                    return "a glare value is below zero"
            if emitted > 0 and abs(rest) > 0.05 * emitted:
                return f"flux balance is {100 * rest / emitted:.1f} % off"
    return ""


def call(program, words, folder, limit_s):
    try:
        done = subprocess.run([program, *words], cwd=folder, capture_output=True, text=True, errors="replace",
                              timeout=limit_s)
        return done.returncode, done.stderr
    except subprocess.TimeoutExpired:
        return None, ""


def main():
    parser = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    parser.add_argument("program")
    parser.add_argument("folder")
    parser.add_argument("--first", type=int, default=1)
    parser.add_argument("--count", type=int, default=10**9)
    parser.add_argument("--minutes", type=float, default=10**9)
    parser.add_argument("--limit", type=float, default=120, help="seconds; sanitizers take twenty times as long")
    parser.add_argument("--run", action="store_true")
    wish = parser.parse_args()
    program = os.path.abspath(wish.program)
    os.environ.setdefault("LSAN_OPTIONS", f"suppressions={ROOT / 'tests/soak/leaks.txt'}:print_suppressions=0")
    folder = pathlib.Path(wish.folder)
    (folder / "photometry").mkdir(parents=True, exist_ok=True)
    for source in [*(ROOT / "demo/photometry").iterdir(), *(ROOT / "tests/photometry/valid").iterdir()]:
        if source.suffix in (".ies", ".ldt", ".tlt"):
            shutil.copy(source, folder / "photometry" / source.name)
    shutil.copy(ROOT / "tests/validation/weather/brackmere.epw", folder / "w.epw")
    shutil.copy(ROOT / "demo/weather/millrace.csv", folder / "w.csv")
    files = sorted(p.name for p in (folder / "photometry").iterdir() if p.suffix != ".tlt")
    end = time.monotonic() + 60 * wish.minutes
    tally = {"projects": 0, "refused": 0, "computed": 0, "faults": 0}
    seed = wish.first
    while seed < wish.first + wish.count and time.monotonic() < end:
        path = folder / f"seed-{seed}.toml"
        path.write_text(Maker(seed, files).text())
        tally["projects"] += 1
        code, err = call(program, ["check", path.name], folder, wish.limit)
        fault = fault_of(code, err, folder / "none")
        if not fault and code == 2:
            tally["refused"] += 1
        elif not fault and wish.run:
            shutil.rmtree(folder / "out", ignore_errors=True)
            code, err = call(program, ["run", path.name, "--accuracy", "draft", "--no-cache", "-o", "out"], folder,
                             wish.limit)
            fault = fault_of(code, err, folder)
            tally["computed"] += 1
        if fault:
            tally["faults"] += 1
            print(f"seed {seed}: {fault}", flush=True)
        else:
            path.unlink()
        seed += 1
    print(", ".join(f"{count} {what}" for what, count in tally.items()))
    return 1 if tally["faults"] else 0


if __name__ == "__main__":
    sys.exit(main())
