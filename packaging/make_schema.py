#!/usr/bin/env python3
"""The JSON schema of the project file for editors, made from what the reader asks of many project files.

    packaging/make_schema.py PROJECT_SCHEMA [--update]

PROJECT_SCHEMA is the program of packaging/project_schema.cpp. It reads the demo, every example of docs/ and of
the tests, and random projects with all features. Without --update what comes out is held against packaging/glowgrid-project.schema.json, and
that against the demo, faults, and the keys that docs/project-file.md tells.
"""
import json
import pathlib
import re
import subprocess
import sys
import tempfile
import tomllib

ROOT = pathlib.Path(__file__).resolve().parents[1]
SCHEMA = ROOT / "packaging/glowgrid-project.schema.json"
RANDOM_PROJECTS = 300

sys.dont_write_bytecode = True  # not beside the sources
sys.path.insert(0, str(ROOT / "tests/soak"))
from random_projects import Maker  # noqa: E402


def examples():
    """Texts of project files, or of parts of them; the reader goes on after faults."""
    yield (ROOT / "demo/millrace.toml").read_text()
    for page in sorted([ROOT / "README.md", *(ROOT / "docs").glob("*.md")]):
        for part in re.findall(r"```toml\n(.*?)```", page.read_text(), re.S):
            yield part if "format = 1" in part else "format = 1\n" + part
    for test in sorted((ROOT / "tests").rglob("*_test.cpp")):
        for _, part in re.findall(r'R"(\w*)\((.*?)\)\1"', test.read_text(), re.S):
            if "[" in part and "=" in part:
                yield part if "format = 1" in part else "format = 1\n" + part
    for seed in range(1, RANDOM_PROJECTS + 1):
        yield Maker(seed, ["a.ies"]).text()


def made(tool):
    """The schema, and what the reader found nothing wrong in."""
    with tempfile.TemporaryDirectory() as folder:
        files = []
        for i, text in enumerate(examples()):
            files.append(pathlib.Path(folder) / f"{i}.toml")
            files[-1].write_text(text)
        done = subprocess.run([tool, *map(str, files)], capture_output=True, text=True, check=True)
        return done.stdout, [tomllib.loads(pathlib.Path(name).read_text()) for name in done.stderr.splitlines()]


def keys_of(schema):
    for name, inner in schema.get("properties", {}).items():
        yield name
        yield from keys_of(inner)
    for inner in (schema.get("items"), schema.get("additionalProperties"), *schema.get("anyOf", [])):
        if isinstance(inner, dict):
            yield from keys_of(inner)


def told_keys():
    """Of the tables of docs/project-file.md: `key`, or `key`, `key`, in the first column."""
    for row in re.findall(r"^\| (`[^|]*) \|", (ROOT / "docs/project-file.md").read_text(), re.M):
        for key in re.findall(r"`([a-z_]+)`", row):
            yield key


def faults(schema, taken):
    import jsonschema

    judge = jsonschema.Draft7Validator(schema)
    judge.check_schema(schema)
    demo = tomllib.loads((ROOT / "demo/millrace.toml").read_text())
    if demo not in taken or len(taken) < 50:
        yield "the reader takes too few of the examples"
    for project in taken:
        for error in judge.iter_errors(project):
            yield f"it refuses what the reader takes: {error.json_path}: {error.message[:200]}"
    for table, key, value in [("project", "nmae", "x"), ("site", "latitude", True), ("rooms", "tsak", "x")]:
        broken = json.loads(json.dumps(demo, default=str))
        target = broken[table][0] if isinstance(broken[table], list) else broken[table]
        target[key] = value
        if judge.is_valid(broken):
            yield f"{table}.{key} = {value!r} is no fault to it"
    known = set(keys_of(schema))
    for key in sorted(set(told_keys()) - known):
        yield f"`{key}` of docs/project-file.md is not in it"


def main():
    text, taken = made(sys.argv[1])
    if "--update" in sys.argv:
        SCHEMA.write_text(text)
    found = [] if SCHEMA.read_text() == text else [f"{SCHEMA.name} is not what the reader asks; make it anew with --update"]
    found += faults(json.loads(text), taken)
    print("\n".join(found) or f"schema: {len(set(keys_of(json.loads(text))))} keys, {len(taken)} projects held against it")
    return 1 if found else 0


if __name__ == "__main__":
    sys.exit(main())
