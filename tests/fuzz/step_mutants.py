#!/usr/bin/env python3
"""Reads STEP files changed by chance, each by the command line in a process of its own.

    tests/fuzz/step_mutants.py DATRIN_CLI [HOW_MANY [FIRST]] [SEED.step ...]

References lead elsewhere, to themselves or nowhere, numbers become absurd, words, brackets and lines are
doubled, exchanged or left out. Every file must be read or refused in one line (exit 0 or 2), within its time.
Prints what came of them; what failed stays in build/fuzz/findings."""
import concurrent.futures, os, pathlib, random, re, subprocess, sys, tempfile, time

here = pathlib.Path(__file__).resolve().parent
numbers = ["0", "-1", "1E308", "-1E308", "1E-308", "1E400", "NAN", "$", "*", "1E11", "0.", "99999999999", "''"]


def mutant(text, chance):
    references = [m.span() for m in re.finditer(r"#\d+", text)]
    figures = [m.span() for m in re.finditer(r"(?<=[(,])-?\d[\d.E+-]*(?=[,)])", text)]
    last = max(int(m) for m in re.findall(r"#(\d+)=", text))
    for _ in range(chance.choice([1, 1, 1, 2, 3, 5])):
        lines = text.split("\n")
        kind = chance.randrange(9)
        if not text: break
        if kind <= 2 and references:
            a, b = chance.choice(references)
            if b > len(text) or text[a] != "#": continue
            to = chance.choice([f"#{chance.randint(1, last)}", f"#{chance.randint(1, last)}", "#0", "#999999", "$"])
            text = text[:a] + to + text[b:]
        elif kind <= 4 and figures:
            a, b = chance.choice(figures)
            text = text[:a] + chance.choice(numbers) + text[b:]
        elif kind == 5:
            at = chance.randrange(len(lines))
            lines[at:at + 1] = chance.choice([[], [lines[at]] * 2, [chance.choice(lines)]])
            text = "\n".join(lines)
        elif kind == 6:
            words = re.findall(r"[A-Z_0-9]{5,}", text)
            if words: text = text.replace(chance.choice(words), chance.choice(words), 1)
        elif kind == 7:
            at = chance.randrange(len(text))
            text = text[:at] + chance.choice(["(", ")", "'", ",", ";", "*", "\0", "((((", "#", ".T."]) + text[at + chance.randrange(2):]
        else:
            at = chance.randrange(len(text))
            text = text[:at] + (text[at + chance.randrange(200):] if chance.random() < .7 else "")
        references = [m.span() for m in re.finditer(r"#\d+", text)]
        figures = [m.span() for m in re.finditer(r"(?<=[(,])-?\d[\d.E+-]*(?=[,)])", text)]
    return text


def tried(program, number, seeds, folder, limit):
    chance = random.Random(number)
    text = mutant(chance.choice(seeds), chance)
    path = pathlib.Path(folder) / f"{number}.step"
    path.write_text(text)
    began = time.monotonic()
    try:
        done = subprocess.run([program, "solid", path, "--section", "z=1", "--thinnest"], capture_output=True, timeout=limit)
    except subprocess.TimeoutExpired:
        return number, "over its time", text, limit
    finally:
        path.unlink()
    took = time.monotonic() - began
    said = done.stderr.decode(errors="replace").strip()
    if done.returncode == 0: return number, "read", None, took
    if done.returncode == 2 and said and "\n" not in said:
        what = said.split(": ", 1)[-1]
        kind = ("damaged" if "leads nowhere" in what else "past its limits" if "within the limits" in what else "refused")
        return number, kind, None, took
    return number, f"ended with {done.returncode}: {said[:80]!r}", text, took


def main():
    program = sys.argv[1]
    how_many = int(sys.argv[2]) if len(sys.argv) > 2 else 1000
    first = int(sys.argv[3]) if len(sys.argv) > 3 else 0
    seeds = [pathlib.Path(p).read_text() for p in sys.argv[4:]] or [(here / "corpus/step/wedge.step").read_text()]
    findings = here.parent.parent / "build/fuzz/findings"
    counts, slowest, failed = {}, 0, 0
    with tempfile.TemporaryDirectory() as folder, concurrent.futures.ThreadPoolExecutor(os.cpu_count()) as several:
        for number, what, text, took in several.map(
                lambda n: tried(program, n, seeds, folder, 150), range(first, first + how_many)):
            counts[what] = counts.get(what, 0) + 1
            slowest = max(slowest, took)
            if sum(counts.values()) % 1000 == 0: print(sum(counts.values()), counts, f"{slowest:.1f} s", flush=True)
            if text is not None:
                failed += 1
                findings.mkdir(parents=True, exist_ok=True)
                (findings / f"step-{number}.step").write_text(text)
    for what, count in sorted(counts.items(), key=lambda one: -one[1]): print(f"{count:7d}  {what}")
    print(f"{how_many} files, the slowest {slowest:.1f} s, {failed} failed")
    return 1 if failed else 0


if __name__ == "__main__":
    sys.exit(main())
