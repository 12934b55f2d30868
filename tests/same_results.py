#!/usr/bin/env python3
"""Runs every project that the tests write, and any others, with two versions of the program and compares their
results.json: to show that a change of the inside moves no number.

    tests/same_results.py OLD NEW FOLDER

FOLDER: where tests left their folders, for example after
    GLOWGRID_KEEP_FOLDERS=1 TMPDIR=FOLDER ctest --test-dir build/release -j 2
All that the old document says has to stand in the new one, which may say more. What differs is counted by its key,
with the first case of each; ends with 1 when something does.
"""
import collections, hashlib, json, pathlib, subprocess, sys, tempfile


def differences(old, new, path=""):
    if isinstance(old, dict) and isinstance(new, dict):
        for key, value in old.items():
            if key in new:
                yield from differences(value, new[key], path + "." + key)
            else:
                yield path + "." + key, value, "(missing)"
    elif isinstance(old, list) and isinstance(new, list):
        if len(old) != len(new):
            yield path + "[]", f"{len(old)} items {str(old)[:150]}", f"{len(new)} items {str(new)[:150]}"
        for a, b in zip(old, new):
            yield from differences(a, b, path + "[]")
    elif isinstance(old, float) and isinstance(new, (int, float)) and abs(old - new) <= 1e-8 * max(1, abs(old)):
        return  # beyond the digits that are written of a number
    elif old != new:
        yield path, old, new


def run(program, project, output):
    extra = ["--spread"] if "[spread]" in project.read_text(errors="replace") else []
    done = subprocess.run([program, "run", "--quiet", "--no-cache", project, "-o", output, *extra],
                          capture_output=True, text=True)
    results = output / "results.json"
    return done.returncode, json.loads(results.read_text()) if results.exists() else None, done.stderr


def main():
    old, new, folder = sys.argv[1], sys.argv[2], pathlib.Path(sys.argv[3])
    seen, same, refused = set(), 0, 0
    kinds = collections.defaultdict(list)
    for project in sorted(folder.rglob("*.toml")):
        text = project.read_bytes()
        digest = hashlib.sha256(text).hexdigest()
        if b"[[rooms]]" not in text or digest in seen:
            continue
        seen.add(digest)
        with tempfile.TemporaryDirectory() as work:
            work = pathlib.Path(work)
            code_a, a, _ = run(old, project, work / "old")
            code_b, b, error = run(new, project, work / "new")
        if code_a != code_b:
            kinds["exit code"].append((project, code_a, f"{code_b} {error[-200:]}"))
        if a is None or b is None:
            refused += a is None and b is None
            continue
        found = list(differences(a, b))
        same += not found
        for path, x, y in found:
            kinds[path].append((project, x, y))
    print(f"{same} the same, {refused} refused by both")
    for path, cases in sorted(kinds.items()):
        project, x, y = cases[0]
        print(f"{path}: {len(cases)} times, first in {project}\n    {str(x)[:300]}\n    {str(y)[:300]}")
    return bool(kinds)


sys.exit(main())
