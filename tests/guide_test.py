#!/usr/bin/env python3
"""Runs every command of README.md and docs/guide.md as it stands there, in an empty folder; tables that a page says to
add to a file, or to save as one, are added and saved.

    tests/guide_test.py PROGRAM
"""
import json
import os
import pathlib
import re
import subprocess
import sys
import tempfile

ROOT = pathlib.Path(__file__).resolve().parents[1]
FENCE = re.compile(r"```(sh|toml)\n(.*?)```", re.S)


def missing_of_demo(answer, results):
    """What the demo should have told or written, and has not."""
    told = ["Throwing room          met       10 of 10", "- work plane, U0 0.25 of 0.40: the lowest", "+ one more D2 above",
            "figures/showroom--work-plane.svg", "glowgrid run millrace-demo/millrace.toml"]
    written = ["report.html", "report.pdf", *json.loads((results / "results.json").read_text())["files"]]
    return ([f"demo: does not tell: {words}\n{answer}" for words in told if words not in answer]
            + [f"demo: not written: {name}" for name in written if not (results / name).exists()])


class Reader:
    """Does what pages say."""

    def __init__(self, program, folder):
        self.folder = pathlib.Path(folder)
        self.failed = []
        self.count = 0
        links = self.folder / "bin"
        links.mkdir()
        (links / "glowgrid").symlink_to(pathlib.Path(program).resolve())
        self.environment = {**os.environ, "PATH": f"{links}:{os.environ['PATH']}", "XDG_CACHE_HOME": str(self.folder / "cache")}

    def run(self, line, where):
        if line.startswith("cd "):
            self.folder /= line[3:]
            return
        self.count += 1
        done = subprocess.run(["bash", "-c", line], cwd=self.folder, env=self.environment, capture_output=True, text=True)
        if done.returncode or "warning" in done.stderr:
            self.failed.append(f"{where}: {line}: exit code {done.returncode}\n{done.stdout[-300:]}{done.stderr[:500]}")
        if line == "glowgrid demo":
            self.failed += missing_of_demo(done.stdout, self.folder / "millrace-demo/millrace-results")

    def follow(self, page):
        text = page.read_text()
        for fence in FENCE.finditer(text):
            kind, body = fence.groups()
            before = text[:fence.start()].rstrip().splitlines()[-1]
            if kind == "sh":
                for line in body.splitlines():
                    self.run(line, page.name)
            elif added := re.search(r"Add to `([^`]+)`:$", before):
                with open(self.folder / added[1], "a") as file:
                    file.write("\n" + body)

    def follow_readme(self, page):
        """The first project by hand, in the demo's folder."""
        text = page.read_text()
        (self.folder / "kitchen.toml").write_text(FENCE.search(text)[2])
        for line in re.findall(r"^    (glowgrid [^#\n]*)", text, re.M):
            self.run(line.strip(), page.name)


def main():
    with tempfile.TemporaryDirectory() as folder:
        reader = Reader(sys.argv[1], folder)
        reader.follow(ROOT / "docs/guide.md")
        reader.follow_readme(ROOT / "README.md")
        print("\n".join(reader.failed) or f"{reader.count} commands")
        return 1 if reader.failed or reader.count < 25 else 0


if __name__ == "__main__":
    sys.exit(main())
