#!/usr/bin/env python3
"""What the layout of the sources promises: widgets make no records themselves, numbers
are read alike in every locale, folders do not go round in a
circle, no two headers share a name. Prints what breaks a promise, and where; exit status 1 when something does.

  structure_check.py ROOT
"""
import collections
import pathlib
import re
import sys

root = pathlib.Path(sys.argv[1])
wrong = []


def sources(*tops):
    for top in tops:
        for path in sorted((root / top).rglob("*")):
            if path.suffix in (".h", ".cpp"):
                yield path


# Edits have names in the core; a widget parses, calls, shows.
by_hand = re.compile(r"build::(add|added|replace|remove|add_all|remove_all|keep_one)\(|\bnext_id\(|\bnext_order\("
                     r"|\bid\s*\*\s*\d|\bchanges\.(push_back|emplace_back)\(")
for path in sources("app"):
    for number, line in enumerate(path.read_text().splitlines(), 1):
        if by_hand.search(line):
            wrong.append(f"{path.relative_to(root)}:{number}: an edit or an id made by a widget: {line.strip()}")

# A number is read alike in every locale: quantity/text.h.
by_locale = re.compile(r"\b(sto(i|l|ll|ul|ull|f|d|ld)|strto(d|f|ld|l|ll|ul|ull)|ato(f|i|l|ll)|sscanf|v?snprintf|sprintf)\b\s*\("
                       r"|\bstrerror\s*\(|\b[io]?stringstream\b|std::put_money|std::locale\(\"")
for path in sources("core", "app", "sheets", "cli", "sim", "demo"):
    for number, line in enumerate(path.read_text().splitlines(), 1):
        if by_locale.search(line.split("//")[0]):
            wrong.append(f"{path.relative_to(root)}:{number}: a number read or written by the locale: {line.strip()}")

# What people named is made fit to be shown in one place: sheets/shown.h. Elsewhere no text is made Qt's but by it,
# none is put into a pattern that is then filled again, and markup is only where names are escaped.
unfit = [(re.compile(r"QString::fromStdString|QString::fromUtf8|QString::fromLatin1"), "a text not made Qt's by sheets/shown.h")]


def end_of_call(text, at):
    """Behind the bracket that closes the one at `at`; brackets in texts do not count."""
    depth = 0
    for token in re.finditer(r'"(?:\\.|[^"\\])*"|\'(?:\\.|[^\'\\])*\'|[()]', text[at:]):
        depth += {"(": 1, ")": -1}.get(token.group(), 0)
        if depth == 0:
            return at + token.end()
    return len(text)


for path in sources("app", "sheets"):
    if path.name == "shown.h":
        continue
    text = path.read_text()
    if "Qt::RichText" in text and "toHtmlEscaped" not in text:
        wrong.append(f"{path.relative_to(root)}: markup, and no name is escaped")
    for found in re.finditer(r"\.arg\(", text):
        if re.match(r"\s*\.arg\(", text[end_of_call(text, found.end() - 1):]):
            wrong.append(f"{path.relative_to(root)}:{text.count(chr(10), 0, found.start()) + 1}: a pattern filled twice: "
                         "a name may hold %1; use filled()")
    for rule, what in unfit:
        for found in rule.finditer(text):
            wrong.append(f"{path.relative_to(root)}:{text.count(chr(10), 0, found.start()) + 1}: {what}")

# One header, one name.
names = collections.defaultdict(list)
for path in sources("core", "app", "sheets", "sim", "cli", "demo"):
    if path.suffix == ".h":
        names[path.name].append(str(path.relative_to(root)))
for name, paths in names.items():
    if len(paths) > 1:
        wrong.append(f"{name} is {' and '.join(paths)}")

# Folders use each other one way only.
folders = {"core": root / "core", "app": root / "app"}
for top, base in folders.items():
    uses = collections.defaultdict(set)
    where = {}
    for path in sources(top):
        if path.name == "main.cpp":  # the program stands above all folders
            continue
        folder = path.parent.relative_to(base).as_posix()
        for line in path.read_text().splitlines():
            found = re.match(r'#include "([^"]+)"', line)
            if not found:
                continue
            target = pathlib.PurePosixPath(found.group(1))
            if top != "core" and target.parts[0] != top:
                continue
            if target.parts[0] == top:
                target = target.relative_to(top)
            other = target.parent.as_posix()
            if other != folder and (base / target).exists():
                uses[folder].add(other)
                where[folder, other] = f"{path.relative_to(root)}: {found.group(1)}"

    def circle(folder, way):
        if folder in way:
            return way[way.index(folder):] + [folder]
        for other in sorted(uses[folder]):
            found = circle(other, way + [folder])
            if found:
                return found
        return None

    for folder in sorted(uses):
        found = circle(folder, [])
        if found:
            wrong.append(f"{top}: folders in a circle: " + "; ".join(where[a, b] for a, b in zip(found, found[1:])))
            break

print("\n".join(wrong) if wrong else "the layout is as it promises")
sys.exit(1 if wrong else 0)
