#!/usr/bin/env python3
"""What variants cost: the demo as it is run usually (daylight, pictures, figures), and its electric light alone without
pictures; then the same with 20 variants that differ in the luminaires of two rooms, each from an empty cache.

    bench/variants.py build/release/src/glowgrid [VARIANTS]
"""
import os, re, shutil, subprocess, sys, tempfile, time


def timed(program, project, options):
    shutil.rmtree(project.replace(".toml", "-cache"), ignore_errors=True)
    begin = time.monotonic()
    subprocess.run([program, "run", project, "-q", *options], stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL, check=True)
    return time.monotonic() - begin


def electric(text):
    """Without site, moments and daylight."""
    text = re.sub(r"\[site\].*?(?=# The luminaire schedule)", "", text, flags=re.S)
    return re.sub(r"\ndaylight = .*|\n\[rooms\.(?:daylight|year)\].*?(?=\n\[|\n\n)", "", text, flags=re.S)


def variants(count):
    return "".join(
        f'\n[[variants."v{k}".rooms]]\nname = "{room}"\n[[variants."v{k}".rooms.luminaires]]\nmark = "{mark}"\n'
        f"dimming = {0.3 + 0.6 * k / count:.3f}\n"
        for k in range(count) for room, mark in (("Throwing room", "P1"), ("Passage", "D2")))


def main():
    program, here = os.path.abspath(sys.argv[1]), os.path.dirname(os.path.abspath(__file__))
    count = int(sys.argv[2]) if len(sys.argv) > 2 else 20
    with tempfile.TemporaryDirectory() as folder:
        shutil.copytree(os.path.join(here, "../demo"), folder, dirs_exist_ok=True)
        text = open(os.path.join(folder, "millrace.toml"), encoding="utf-8").read()
        text = text[: text.index("# Variants:")]
        for words, project, options in (("as usual", text, []), ("electric light alone", electric(text), ["--no-views"])):
            times = []
            for name, content in (("one.toml", project), ("many.toml", project + variants(count))):
                path = os.path.join(folder, name)
                with open(path, "w", encoding="utf-8") as file:
                    file.write(content)
                times.append(timed(program, path, options))
            print(f"{words}: project {times[0]:.2f} s; with {count} variants {times[1]:.2f} s, {times[1] / times[0]:.1f} times")


main()
