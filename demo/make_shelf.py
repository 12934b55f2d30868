#!/usr/bin/env python3
"""Writes the photometric files of the demo's shelf, demo/shelf/: invented luminaires with curves from formulas.

    demo/make_shelf.py

Each line of LUMINAIRES gives the form of a curve, its flux, watts, size, colour temperature and Ra. Makers, names
and numbers are invented; the same lines give the same bytes.
"""
import math
import pathlib

GAMMAS = [2.5 * i for i in range(73)]


def lobe(beam_deg, lean_deg=0, up=False):
    """A beam of this width between halves of its peak, aimed lean_deg to the side along C0."""
    power = math.log(0.5) / math.log(math.cos(math.radians(beam_deg / 2)))

    def curve(c_deg, gamma_deg):
        g, c, lean = (math.radians(v) for v in (180 - gamma_deg if up else gamma_deg, c_deg, lean_deg))
        along = math.cos(g) * math.cos(lean) + math.sin(g) * math.cos(c) * math.sin(lean)
        within = g < math.pi / 2 - 1e-9
        return max(along, 0) ** power if within else 0

    return curve


def batwing(side_c0, side_c90):
    """More to the sides than straight down: cos g (1 + side sin2 g), per plane."""

    def curve(c_deg, gamma_deg):
        g, c = math.radians(gamma_deg), math.radians(c_deg)
        side = side_c0 * math.cos(c) ** 2 + side_c90 * math.sin(c) ** 2
        return math.cos(g) * (1 + side * math.sin(g) ** 2) if gamma_deg < 90 else 0

    return curve


def flood(lean_deg, width_deg, cut_deg):
    """Thrown to one side, C0, and cut off towards the horizontal: flat glass, lying level."""

    def curve(c_deg, gamma_deg):
        if gamma_deg >= cut_deg:
            return 0
        g, c, lean = (math.radians(v) for v in (gamma_deg, c_deg, lean_deg))
        along = math.cos(g) * math.cos(lean) + math.sin(g) * math.cos(c) * math.sin(lean)
        off = math.degrees(math.acos(max(-1, min(1, along))))
        return math.exp(-((off / width_deg) ** 2)) * min(1, (cut_deg - gamma_deg) / 12)

    return curve


def both(down, up, up_share):
    return lambda c, g: down(c, g) if g <= 90 else up_share * up(c, g)


# file, name, curve, lm, W, mm along C0 and C90 (one number: round), K, Ra
LUMINAIRES = [
    ("tarnfell-heron-600-opal.ldt", "Heron panel 600, opal", lobe(118), 3600, 29, (595, 595), 4000, 85),
    ("tarnfell-heron-600-prism.ldt", "Heron panel 600, prisms", lobe(88), 3450, 27, (595, 595), 4000, 85),
    ("tarnfell-heron-600-prism-3000.ldt", "Heron panel 600, prisms, warm", lobe(88), 3250, 27, (595, 595), 3000, 92),
    ("tarnfell-heron-600-prism-bright.ldt", "Heron panel 600, prisms, bright", lobe(88), 4600, 37, (595, 595), 4000, 85),
    ("tarnfell-heron-1200-prism.ldt", "Heron panel 1200 x 300, prisms", lobe(88), 3700, 29, (295, 1195), 4000, 85),
    ("tarnfell-sandpiper-1200.ldt", "Sandpiper strip 1200", batwing(1.6, 0.2), 4200, 30, (60, 1150), 4000, 82),
    ("tarnfell-sandpiper-1500.ldt", "Sandpiper strip 1500", batwing(1.6, 0.2), 6100, 43, (60, 1450), 4000, 82),
    ("tarnfell-curlew-1500.ldt", "Curlew pendant 1500, down and up", both(lobe(92), lobe(126, up=True), 0.55), 5400, 44,
     (68, 1490), 4000, 85),
    ("tarnfell-lapwing.ldt", "Lapwing uplight", lobe(110, up=True), 6800, 58, (300, 300), 3000, 85),
    ("tarnfell-dunlin.ldt", "Dunlin wall washer", lobe(66, 34), 2100, 20, (90, 600), 3000, 92),
    ("tarnfell-heron-board.ldt", "Heron board light 1200", lobe(52, 32), 2900, 25, (80, 1180), 4000, 85),
    ("quillon-kestrel-100-24.ies", "Kestrel downlight 100, 24 deg", lobe(24), 950, 10, (80,), 3000, 92),
    ("quillon-kestrel-100-40.ies", "Kestrel downlight 100, 40 deg", lobe(40), 930, 10, (80,), 3000, 92),
    ("quillon-kestrel-150-60.ies", "Kestrel downlight 150, 60 deg", lobe(60), 1750, 16, (135,), 4000, 90),
    ("quillon-kestrel-200-80.ies", "Kestrel downlight 200, 80 deg", lobe(80), 2500, 21, (185,), 4000, 85),
    ("quillon-goshawk-60.ies", "Goshawk high bay, 60 deg", lobe(60), 15200, 106, (340,), 4000, 82),
    ("quillon-goshawk-100.ies", "Goshawk high bay, 100 deg", lobe(100), 14800, 106, (340,), 4000, 82),
    ("quillon-owlet.ies", "Owlet opal disc 300", lobe(118), 1900, 18, (290,), 3000, 85),
]


def table_of(curve, lumens, planes):
    """Intensities [c][g] that add up to the flux."""
    rows = [[curve(c, g) for g in GAMMAS] for c in planes]
    flux = 0
    step = math.radians(360 / len(planes))
    for row in rows:
        for i in range(len(GAMMAS) - 1):
            a, b = math.radians(GAMMAS[i]), math.radians(GAMMAS[i + 1])
            slope = (row[i + 1] - row[i]) / (b - a)
            flux += step * (row[i] * math.cos(a) - row[i + 1] * math.cos(b) + slope * (math.sin(b) - math.sin(a)))
    return [[v * lumens / flux for v in row] for row in rows]


def is_round(curve):
    return all(abs(curve(c, g) - curve(0, g)) < 1e-12 for c in (30, 90, 200) for g in (20, 50, 120))


def eulumdat(name, file, curve, lumens, watts, size, kelvin, ra):
    planes = [0] if is_round(curve) else [15 * i for i in range(24)]
    rows = table_of(curve, lumens, planes)
    all_planes = [15 * i for i in range(24)]
    symmetry = 1 if len(planes) == 1 else 4 if rows[0] == rows[12] else 2  # planes that are listed: 1, to 90 or to 180
    listed = rows[:{1: 1, 4: 7, 2: 13}[symmetry]]
    along_c90, along_c0 = (size[-1], size[0]) if len(size) > 1 else (size[0], 0)
    down = sum(1 for g in GAMMAS if g <= 90)
    below = 100 * flux_share(rows, down)
    lines = ["Tarn & Fell Lighting", 1 if symmetry == 1 else 2, symmetry, len(all_planes), 15, len(GAMMAS), 2.5,
             "TF-" + format(2400 + sum(map(ord, file)) % 600), name, file.split("-")[1], file, "2026-05-04",
             along_c90 + 15, along_c0 + 15 if along_c0 else 0, 75, along_c90, along_c0, 0, 0, 0, 0,
             f"{below:.1f}", "100.0", 1, 0, 1, 1, f"LED {kelvin} K", lumens, f"{kelvin} K", ra, watts]
    lines += ["0.50 0.60 0.67 0.74 0.79 0.85 0.89 0.92 0.95 0.97".split()[i] for i in range(10)]
    lines += all_planes + [f"{g:g}" for g in GAMMAS]
    lines += [f"{1000 * v / lumens:.2f}" for row in listed for v in row]
    return "\r\n".join(str(line) for line in lines) + "\r\n"


def flux_share(rows, down):
    total = part = 0
    for row in rows:
        for i in range(len(GAMMAS) - 1):
            a, b = math.radians(GAMMAS[i]), math.radians(GAMMAS[i + 1])
            slope = (row[i + 1] - row[i]) / (b - a)
            cell = row[i] * math.cos(a) - row[i + 1] * math.cos(b) + slope * (math.sin(b) - math.sin(a))
            total += cell
            part += cell if i + 1 < down else 0
    return part / total


def ies(name, file, curve, lumens, watts, size, kelvin, ra):
    row = table_of(curve, lumens, [0])[0]
    gammas, values = GAMMAS[:37], row[:37]
    head = ["IESNA:LM-63-2002", f"[TEST] QN-{sum(map(ord, file)) % 9000}", "[TESTLAB] Quillon photometric bench",
            "[ISSUEDATE] 04-MAY-2026", "[MANUFAC] Quillon", f"[LUMCAT] {file.split('-')[1]}", f"[LUMINAIRE] {name}",
            f"[LAMP] LED module {kelvin} K, Ra {ra}", "TILT=NONE", f"1 {lumens} 1 37 1 1 2 {-size[0] / 1000:g} {-size[0] / 1000:g} 0",
            f"1 1 {watts}"]
    wrap = lambda numbers: [" ".join(numbers[i:i + 12]) for i in range(0, len(numbers), 12)]
    body = wrap([f"{g:g}" for g in gammas]) + ["0"] + wrap([f"{v:.1f}" for v in values])
    return "\r\n".join(head + body) + "\r\n"


# Of the yard, beside the demo's own luminaires.
FLOOD = ("tarnfell-f5.ldt", "Fieldfare yard flood", flood(42, 34, 84), 5200, 43, (270, 330), 3000, 80)


def main():
    folder = pathlib.Path(__file__).parent / "shelf"
    folder.mkdir(exist_ok=True)
    file, name, curve, *numbers = FLOOD
    (folder.parent / "photometry" / file).write_bytes(eulumdat(name, file, curve, *numbers).encode())
    for file, name, curve, *numbers in LUMINAIRES:
        write = eulumdat if file.endswith(".ldt") else ies
        (folder / file).write_bytes(write(name, file, curve, *numbers).encode())


if __name__ == "__main__":
    main()
