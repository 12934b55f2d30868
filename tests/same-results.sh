#!/usr/bin/env bash
# Runs every project that the tests write, and the demo, with two versions of the program and compares their
# results.json: to show that a change of the inside moves no number.
#   tests/same-results.sh OLD NEW FOLDER [FILTER]
# FOLDER: where tests left their folders, for example after
#   GLOWGRID_KEEP_FOLDERS=1 TMPDIR=FOLDER ctest --test-dir build/release -j 2
# FILTER: a sed script for both documents before they are compared, for what is meant to differ.
# Prints each project that differs with the first lines that do; ends with 1 when one does.
set -uo pipefail
old=$1 new=$2 folder=$3 filter=${4:-}
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT
declare -A seen
same=0 differ=0 refused=0

one() {  # project file
  local sum
  sum=$(cat "$1" | sha256sum | cut -c1-40)
  [ -z "${seen[$sum]:-}" ] || return 0
  seen[$sum]=1
  rm -rf "$work/old" "$work/new"
  "$old" run --quiet --no-cache "$1" -o "$work/old" >/dev/null 2>"$work/old.err"; local a=$?
  "$new" run --quiet --no-cache "$1" -o "$work/new" >/dev/null 2>"$work/new.err"; local b=$?
  if [ $a -ne $b ]; then
    echo "DIFFERS $1: exit $a and $b"; tail -2 "$work/new.err"; differ=$((differ + 1)); return 0
  fi
  if [ ! -f "$work/old/results.json" ]; then refused=$((refused + 1)); return 0; fi
  sed -E "$filter" "$work/old/results.json" >"$work/a"
  sed -E "$filter" "$work/new/results.json" >"$work/b"
  if cmp -s "$work/a" "$work/b"; then same=$((same + 1)); return 0; fi
  echo "DIFFERS $1"; diff "$work/a" "$work/b" | cut -c1-200 | head -${LINES_SHOWN:-6}; differ=$((differ + 1))
}

while IFS= read -r project; do
  grep -q '^\[\[rooms\]\]' "$project" && one "$project"
done < <(find "$folder" -name '*.toml' | sort)
echo "$same the same, $differ differ, $refused refused by both"
[ $differ -eq 0 ]
