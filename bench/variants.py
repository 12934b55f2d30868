#!/usr/bin/env python3
"""What variants cost: a project of the demo's electric light alone, then the same with 20 variants that differ in
luminaires, each from an empty cache.

    bench/variants.py build/release/src/glowgrid [VARIANTS]
"""
import os, re, shutil, subprocess, sys, tempfile, time


def timed(program, project):
    shutil.rmtree(project.replace(".toml", "-cache"), ignore_errors=True)
    begin = time.monotonic()
    subprocess.run([program, "run", project, "-q", "--no-views"], stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)
    return time.monotonic() - begin


def main():
    program, here = os.path.abspath(sys.argv[1]), os.path.dirname(os.path.abspath(__file__))
    count = int(sys.argv[2]) if len(sys.argv) > 2 else 20
    with tempfile.TemporaryDirectory() as folder:
        shutil.copytree(os.path.join(here, "../demo"), folder, dirs_exist_ok=True)
        text = open(os.path.join(folder, "millrace.toml"), encoding="utf-8").read()
        text = re.sub(r"\[site\].*?(?=# The luminaire schedule)", "", text, flags=re.S)
        text = re.sub(r"\ndaylight = .*|\n\[rooms\.daylight\].*?(?=\n\[|\n\n)", "", text, flags=re.S)
        text = text[: text.index("# Variants:")]
        variants = "".join(
            f'\n[[variants."v{k}".rooms]]\nname = "{room}"\n[[variants."v{k}".rooms.luminaires]]\nmark = "{mark}"\n'
            f"dimming = {0.3 + 0.6 * k / count:.3f}\n"
            for k in range(count) for room, mark in (("Throwing room", "P1"), ("Passage", "D2")))
        for name, content in (("one.toml", text), ("many.toml", text + variants)):
            with open(os.path.join(folder, name), "w", encoding="utf-8") as file:
                file.write(content)
        one = timed(program, os.path.join(folder, "one.toml"))
        many = timed(program, os.path.join(folder, "many.toml"))
        print(f"project {one:.2f} s; with {count} variants {many:.2f} s, {many / one:.1f} times")


main()
