#!/usr/bin/env python3
"""Makes a building of N rooms out of a project's rooms in other sizes: longer and wider by up to a quarter, with what
stands in them where it was.

    bench/many_rooms.py demo/millrace.toml 300 > demo/many-rooms.toml
"""
import re, sys


def scaled(line, factor):
    """A room's own size or outline; other lines as they are."""
    head = re.match(r"(size|outline) = ", line)
    if not head:
        return line
    return re.sub(r"\d+(\.\d+)?", lambda n: f"{float(n.group()) * factor:.3f}", line.split("#")[0]) + "\n"


def main():
    text, count = open(sys.argv[1], encoding="utf-8").read(), int(sys.argv[2])
    head, *rooms = re.split(r"(?m)^(?=\[\[rooms\]\])", text)
    print(head)
    for number in range(count):
        factor = 1 + 0.25 * ((number * 37) % 100) / 100
        lines = rooms[number % len(rooms)].splitlines(keepends=True)
        own = True  # up to the first table within the room
        for line in lines:
            own = own and not line.startswith("[[rooms.")
            if own:
                line = scaled(line, factor)
                line = re.sub(r'^name = "(.*?)"', rf'name = "\1 {number + 1}"', line)
            print(line, end="")


main()
