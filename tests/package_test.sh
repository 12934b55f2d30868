#!/usr/bin/env bash
# Makes the Debian package of a build, unpacks it into an empty root, and uses what is there: program, manual pages,
# completion, example, demo and guide.
#   tests/package_test.sh BUILD PYTHON
set -euo pipefail
build=$(cd "$1" && pwd)
python=$2
source=$(cd "$(dirname "$0")" && pwd)
folder=$(mktemp -d)
trap 'rm -rf "$folder"' EXIT
cd "$folder"
cpack -G DEB --config "$build/CPackConfig.cmake" -B packed >cpack.log 2>&1 || { cat cpack.log; exit 1; }
dpkg-deb -x packed/*.deb root
dpkg-deb -f packed/*.deb Depends | grep libembree >/dev/null || { echo "the package does not name its libraries"; exit 1; }
program=$folder/root/usr/bin/glowgrid
export HOME=$folder XDG_CACHE_HOME=$folder/cache

# Every command has a page, and every option of its help stands on it.
for command in $("$program" --help | awk '/^  [a-z]+ +/ && $1 != "glowgrid" { print $1 }'); do
  page=root/usr/share/man/man1/glowgrid-$command.1.gz
  [ -f "$page" ] || page=${page%.gz}
  [ -f "$page" ] || { echo "no manual page of $command"; exit 1; }
  for option in $("$program" "$command" --help | grep -oE '(^  |\[ )--[a-z-]+' | grep -oE '[a-z][a-z-]+'); do
    zgrep -qF -- "\\-\\-${option//-/\\-}" "$page" || { echo "--$option of $command is not on its page"; exit 1; }
  done
done

cp -r root/usr/share/doc/glowgrid/examples example
cd example
# Completion offers commands, rooms and marks of the project at hand.
offered() {
  bash -c 'source "$0"; COMP_WORDS=("$@"); COMP_CWORD=$((${#COMP_WORDS[@]} - 1)); _glowgrid; printf "%s\n" "${COMPREPLY[@]}"' \
    "$folder/root/usr/share/bash-completion/completions/glowgrid" "$@"
}
[ "$(offered glowgrid arr)" = arrange ] || { echo "completion of commands"; exit 1; }
[ "$(offered glowgrid run millrace.toml --room Th)" = 'Throwing\ room' ] || { echo "completion of rooms"; exit 1; }
offered glowgrid arrange millrace.toml --mark "" | grep -x P1 >/dev/null || { echo "completion of marks"; exit 1; }
if command -v zsh >/dev/null; then zsh -n "$folder/root/usr/share/zsh/vendor-completions/_glowgrid"; fi

[ -s "$folder/root/usr/share/glowgrid/glowgrid-project.schema.json" ] || { echo "no schema"; exit 1; }
"$program" check millrace.toml -q >/dev/null
cd ..
# The demo, and every command of README and guide, with the installed program.
env -i HOME="$folder" PATH=/usr/bin:/bin "$python" "$source/guide_test.py" "$program"
echo "package: $(du -h packed/*.deb | cut -f1)"
