"""Files of hundreds of megabytes, as no person writes them: each is refused in one line, within a gibibyte of
address space (ulimit -v) and half a minute of the processor.

usage: bounded_check.py DATRIN_CLI
"""

import os
import resource
import subprocess
import sys
import tempfile

cli = sys.argv[1]
MIB = 1 << 20
BUILD = '{"format":"datrin-build","version":1,"next_id":9,"records":['
ROW = '{"id":2,"kind":"piece","body":{"part":3,"number":1},"filling":"' + "x" * 200 + '"}'


def limits(memory):
    def set_limits():
        resource.setrlimit(resource.RLIMIT_AS, (memory, memory))
        resource.setrlimit(resource.RLIMIT_CPU, (30, 30))
    return set_limits


def refused(path, command, says, before, again, after, size=20 * 10**6, memory=1024 * MIB):
    """Writes `before`, `again` until the file has `size`, `after`; the command must refuse it saying `says`."""
    block = again * max(1, 10**6 // len(again))
    with open(path, "w", encoding="utf-8") as file:
        file.write(before)
        for _ in range(size // len(block) + 1):
            file.write(block)
        file.write(after)
    done = subprocess.run([cli, *command], capture_output=True, text=True, preexec_fn=limits(memory), check=False)
    assert done.returncode == 2, (command, done.returncode, done.stderr[:300])
    assert done.stdout == "", (command, done.stdout[:300])
    assert done.stderr.count("\n") == 1 and len(done.stderr) < 400, done.stderr[:1000]
    assert says in done.stderr, (command, done.stderr)


in_memory = "/dev/shm" if os.access("/dev/shm", os.W_OK) else None
with tempfile.TemporaryDirectory(dir=in_memory) as folder:
    path = os.path.join(folder, "large.json")
    new = os.path.join(folder, "new.datrin")
    values = "it holds more than 4,000,000 values, more than can be read at once"
    refused(path, ["seat", path], values, '{"format":"datrin-seat-case","points":[0', ",0", "]}", size=200 * 10**6)
    refused(path, ["targets", path], values, '{"format":"datrin-targets-case","dimensions":[{}', ",{}", "]}")
    refused(path, ["chain", path], "more than 1000 lists and objects in one another", "", "[", "")
    refused(path, ["chain", path], "is over 256 MiB", "", " ", "", size=300 * 10**6, memory=400 * MIB)
    refused(path, ["chain", path], "must be \"datrin-chain-case\"", '{"format":"', "u", '"}')
    refused(path, ["import", path, new], "more than 2,000,000 elements", BUILD + "{}", ",{}", "]}")
    refused(path, ["import", path, new], "/records/1/id: stands twice", BUILD + ROW, "," + ROW, "]}", size=100 * 10**6)
    refused(path, ["import", path, new], "it holds more than 1,000,000 values",
            BUILD + '{"id":1,"kind":"build","body":[0', ",0", "]}]}")
    refused(path, ["import", path, new], "there is no kind of record called \"", BUILD + '{"id":1,"kind":"', "k", '","body":0}]}')
    assert not os.path.exists(new)
    # A name of a hundred megabytes is a name: it comes in, and goes out whole.
    name = "n" * 10**8
    with open(path, "w", encoding="utf-8") as file:
        file.write(BUILD + '{"id":1,"kind":"build","body":{"name":"' + name + '","unit":"mm","third_angle":0}}],"log":[]}')
    done = subprocess.run([cli, "import", path, new], capture_output=True, text=True, preexec_fn=limits(2048 * MIB), check=False)
    assert done.returncode == 0, done.stderr[:300]
    out = subprocess.run([cli, "export", new], capture_output=True, text=True, preexec_fn=limits(2048 * MIB), check=False)
    assert out.returncode == 0 and name in out.stdout, out.stderr[:300]
print("bounded")
