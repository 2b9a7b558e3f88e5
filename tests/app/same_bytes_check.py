"""The same build gives the same bytes in every format it goes out in, whatever the memory held before and however
the toolkit mixes its tables; and a picture leaves nothing behind.

usage: same_bytes_check.py DATRIN DATRIN_CLI MAKE_DEMO
"""

import os
import shutil
import subprocess
import sys
import tempfile

datrin, cli, make_demo = sys.argv[1:]

with tempfile.TemporaryDirectory() as folder:
    home = os.path.join(folder, "home")
    temporary = os.path.join(folder, "tmp")
    os.makedirs(home)
    os.makedirs(temporary)
    environment = dict(os.environ, HOME=home, TMPDIR=temporary, XDG_CONFIG_HOME=home, XDG_RUNTIME_DIR=temporary,
                       QT_QPA_PLATFORM="offscreen", SOURCE_DATE_EPOCH="1767225600")
    os.chmod(temporary, 0o700)
    demo = os.path.join(folder, "demo.datrin")
    subprocess.run([make_demo, demo], check=True)

    def run(build, perturb, *words):
        subprocess.run([datrin, build, "--piece", "1", *words], check=True, timeout=120, capture_output=True,
                       env=dict(environment, MALLOC_PERTURB_=str(perturb)))

    run(demo, 1, "--seat", "--picture", os.path.join(folder, "seat.png"))
    written = []
    for perturb in (37, 74):
        build = os.path.join(folder, "build.datrin")
        shutil.copy(demo, build)
        out = os.path.join(folder, str(perturb))
        os.makedirs(out)
        for ending in ("pdf", "svg", "dxf"):
            run(build, perturb, "--sheet", os.path.join(out, "sheet." + ending), "--pattern",
                os.path.join(out, "pattern.pdf"), "--card", os.path.join(out, "card.pdf"), "--picture",
                os.path.join(out, "window.png"))
        for name, words in (("build.json", ["export", build]), ("schema.json", ["schema"])):
            with open(os.path.join(out, name), "wb") as file:
                subprocess.run([cli, *words], check=True, stdout=file)
        files = {}
        for name in sorted(os.listdir(out)):
            with open(os.path.join(out, name), "rb") as file:
                files[name] = file.read()
            assert len(files[name]) > 500, name
        written.append(files)
    assert len(written[0]) == 8, list(written[0])
    for name, content in written[0].items():
        assert content == written[1][name], f"{name} is not the same twice"
    assert b"CreationDate" not in written[0]["sheet.pdf"]
    left = os.listdir(home) + os.listdir(temporary)
    assert not left, f"left behind: {left}"
print("the same bytes")
