#!/usr/bin/env python3
"""Manual pages and shell completions, made from what the program says of itself.

    packaging/make_pages.py PROGRAM FOLDER

Asks PROGRAM for --help of each command and writes FOLDER/man/*.1, FOLDER/bash/glowgrid and FOLDER/zsh/_glowgrid.
"""
import json
import pathlib
import re
import subprocess
import sys


def said(program, *words):
    return subprocess.run([program, *words], capture_output=True, text=True, check=True).stdout


class Help:
    """One command's help, taken apart."""

    def __init__(self, text):
        usage, rest = text.split("\n\n", 1)
        self.usage = usage.removeprefix("Usage: ")
        about, rest = rest.split("\n\nOptions:\n", 1)
        options, self.example = rest.split("\nExample:\n", 1)
        self.about = about
        self.options = []  # short, long, value, words
        for line in options.splitlines():
            new = re.match(r"  (?:-(\w) \[ )?--([a-z-]+)(?: \])?(?: arg)?( (?:[A-Z]|[a-z]+\|)[^ ]*)?(?: (\(=[^)]*\)))?\s{1,}(.*)", line)
            if new:
                short, long, value, default, words = new.groups()
                self.options.append([short, long, (value or "").strip(), (default or "") + " " + words])
            elif self.options:
                self.options[-1][3] += " " + line.strip()
        for option in self.options:
            option[3] = " ".join(option[3].split())


def escaped(text):
    text = text.replace("\\", "\\e").replace("-", "\\-")
    return "\n".join("\\&" + line if line.startswith((".", "'")) else line for line in text.splitlines())


def page(name, short, version, synopsis, sections):
    lines = [f'.TH {name.upper()} 1 "" "Glow Grid {version}" "Glow Grid"', ".SH NAME", f"{name} \\- {escaped(short)}", ".SH SYNOPSIS"]
    lines += [".nf", escaped(synopsis), ".fi"]
    for title, body in sections:
        lines += [f".SH {title}", body]
    return "\n".join(lines) + "\n"


def command_page(name, short, version, own):
    options = []
    for letter, long, value, words in own.options:
        flags = (f"\\fB\\-{letter}\\fR, " if letter else "") + f"\\fB\\-\\-{escaped(long)}\\fR" + (f" \\fI{escaped(value)}\\fR" if value else "")
        options += [".TP", flags, escaped(words)]
    return page(f"glowgrid-{name}", short, version, own.usage,
                [("DESCRIPTION", escaped(own.about)), ("OPTIONS", "\n".join(options)),
                 ("EXAMPLES", ".nf\n" + escaped(own.example.rstrip()) + "\n.fi"),
                 ("SEE ALSO", ".BR glowgrid (1)")])


BASH = r"""# bash completion of glowgrid; made from its own help.
_glowgrid_project() {  # the project file, or the first one in this folder
  local word
  for word in "${COMP_WORDS[@]:2}"; do
    [[ $word == *.toml && -f $word ]] && { printf '%s' "$word"; return; }
  done
  printf '%s' "$(compgen -f -X '!*.toml' | head -1)"
}
_glowgrid_names() {  # what `name` says in tables of these kinds; or the marks of the schedule
  local file
  file=$(_glowgrid_project)
  [ -n "$file" ] || return
  case $1 in
    rooms) awk '/^\[\[/ { own = $0 ~ /^\[\[(rooms|outdoors)\]\]/ } own && /^name *= */ { sub(/^name *= *"/, ""); sub(/".*/, ""); print }' "$file" ;;
    floors) awk '/^\[/ { own = $0 ~ /^\[\[floors\]\]/ } own && /^name *= */ { sub(/^name *= *"/, ""); sub(/".*/, ""); print }' "$file" ;;
    marks) awk '/^\[luminaires\./ { sub(/^\[luminaires\."?/, ""); sub(/"?\].*/, ""); print }' "$file" ;;
    scenes) awk '/^\[[a-z.]*(scenes|moments)\./ { sub(/^\[[a-z.]*(scenes|moments)\."?/, ""); sub(/"?\].*/, ""); print }' "$file" ;;
  esac
}
_glowgrid_offer() {  # of the lines given, those that begin as what is typed, quoted where they have blanks
  local line typed=${cur#[\"\']}
  while IFS= read -r line; do
    [[ -n $line && $line == "$typed"* ]] && COMPREPLY+=("$(printf '%q' "$line")")
  done
}
_glowgrid_files() {
  local end
  for end in "$@"; do
    mapfile -t -O "${#COMPREPLY[@]}" COMPREPLY < <(compgen -f -X "!*.$end" -- "$cur")
  done
}
_glowgrid() {
  local cur=${COMP_WORDS[COMP_CWORD]} before=${COMP_WORDS[COMP_CWORD-1]} command=${COMP_WORDS[1]}
  COMPREPLY=()
  if [ "$COMP_CWORD" = 1 ]; then
    COMPREPLY=($(compgen -W "@COMMANDS@ --help --version" -- "$cur"))
    return
  fi
  case $before in
    --room | -r) _glowgrid_offer < <(_glowgrid_names rooms | sort -u); return ;;
    --floor | -F) _glowgrid_offer < <(_glowgrid_names floors | sort -u); return ;;
    --mark) _glowgrid_offer < <(_glowgrid_names marks | sort -u); return ;;
    --scene | --moment) _glowgrid_offer < <(_glowgrid_names scenes | sort -u); return ;;
    --task) COMPREPLY=($(compgen -W "@TASKS@" -- "$cur")); return ;;
  esac
  if [[ $cur == -* ]]; then
    case $command in
@OPTIONS@
    esac
    return
  fi
  case $command in
    inspect | convert | shelf) _glowgrid_files ies IES ldt LDT ;;
    rank) _glowgrid_files toml ies IES ldt LDT ;;
    weather) _glowgrid_files epw csv ;;
    import) _glowgrid_files dxf DXF ifc xml obj gltf glb toml ;;
    tasks) COMPREPLY=($(compgen -W "@TASKS@" -- "$cur")) ;;
    *) _glowgrid_files toml ;;
  esac
  COMPREPLY+=($(compgen -d -S / -- "$cur"))
}
complete -F _glowgrid glowgrid
"""

ZSH = r"""#compdef glowgrid
# zsh completion of glowgrid; made from its own help.
_glowgrid() {
  local -a commands
  commands=(
@COMMANDS@
  )
  if (( CURRENT == 2 )); then
    _describe command commands
    return
  fi
  case ${words[2]} in
@OPTIONS@
  esac
}
_glowgrid_names() {
  local file=${words[(r)*.toml]}
  [[ -f $file ]] || file=(*.toml(N[1]))
  [[ -f $file ]] || return
  local -a names
  case $1 in
    rooms) names=(${(f)"$(awk '/^\[\[/ { own = $0 ~ /^\[\[(rooms|outdoors)\]\]/ } own && /^name *= */ { sub(/^name *= *"/, ""); sub(/".*/, ""); print }' $file)"}) ;;
    marks) names=(${(f)"$(awk '/^\[luminaires\./ { sub(/^\[luminaires\."?/, ""); sub(/"?\].*/, ""); print }' $file)"}) ;;
  esac
  compadd -a names
}
_glowgrid "$@"
"""

ZSH_VALUES = {"room": "_glowgrid_names rooms", "mark": "_glowgrid_names marks", "output": "_files", "project": '_files -g "*.toml"',
              "figure": "_files"}


def bash(commands, tasks):
    options = "\n".join(f'      {name}) COMPREPLY=($(compgen -W "' + " ".join("--" + o[1] for o in own.options) + '" -- "$cur")) ;;'
                        for name, _, own in commands)
    names = " ".join(name for name, _, _ in commands)
    return BASH.replace("@COMMANDS@", names).replace("@OPTIONS@", options).replace("@TASKS@", " ".join(tasks))


def zsh(commands):
    def quoted(words):
        return words.replace("'", "'\\''").replace("[", "(").replace("]", ")").replace(":", " -")

    def spec(option):
        short, long, value, words = option
        flags = f"'(-{short} --{long})'{{-{short},--{long}}}" if short else f"--{long}"
        what = f"'[{quoted(words)}]" + (f":{value.lower()}:{ZSH_VALUES.get(long, '')}'" if value else "'")
        return f"      {flags}{what} \\"

    cases = []
    for name, _, own in commands:
        lines = "\n".join(spec(option) for option in own.options)
        cases.append(f"    {name}) _arguments \\\n{lines}\n      '*:file:_files' ;;")
    return (ZSH.replace("@COMMANDS@", "\n".join(f"    '{name}:{quoted(short)}'" for name, short, _ in commands))
            .replace("@OPTIONS@", "\n".join(cases)))


def main():
    program, folder = sys.argv[1], pathlib.Path(sys.argv[2])
    top = said(program, "--help")
    version = said(program, "--version").split()[-1]
    commands = []
    for name, short in re.findall(r"^  ([a-z]+) +(.*)$", top, re.M):
        if name != "glowgrid":
            commands.append((name, short, Help(said(program, name, "--help"))))
    for part in ("man", "bash", "zsh"):
        (folder / part).mkdir(parents=True, exist_ok=True)
    for name, short, own in commands:
        (folder / "man" / f"glowgrid-{name}.1").write_text(command_page(name, short, version, own))
    listed = "\n".join(f".TP\n.BR glowgrid\\-{name} (1)\n{escaped(short)}" for name, short, _ in commands)
    (folder / "man" / "glowgrid.1").write_text(
        page("glowgrid", "lighting of rooms, computed and held against standards", version, "glowgrid COMMAND [ARGUMENTS]",
             [("COMMANDS", listed), ("EXAMPLES", ".nf\nglowgrid demo\n.fi"),
              ("FILES", "A project is one text file, PROJECT.toml; results stand beside it in PROJECT\\-results.")]))
    keys = set()
    for standard in ([], ["--standard", "EN 12464-2:2014"]):
        keys |= {row["key"] for row in json.loads(said(program, "tasks", "--json", *standard))["tasks"]}
    (folder / "bash" / "glowgrid").write_text(bash(commands, sorted(keys)))
    (folder / "zsh" / "_glowgrid").write_text(zsh(commands))


if __name__ == "__main__":
    main()
