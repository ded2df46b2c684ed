"""The wheel: all it needs is in it, and it starts from an empty folder."""

import os
import subprocess
import sys
import zipfile
from pathlib import Path

ROOT = Path(__file__).parent.parent


def test_the_wheel_holds_everything_and_starts(tmp_path: Path, visitor_csv: Path) -> None:
    built = subprocess.run(
        [sys.executable, "-m", "build", "--wheel", "--no-isolation", "--outdir", str(tmp_path), str(ROOT)],
        capture_output=True, text=True, check=False,
    )  # fmt: skip
    assert built.returncode == 0, built.stdout + built.stderr
    (wheel,) = tmp_path.glob("*.whl")
    unpacked = tmp_path / "unpacked"
    with zipfile.ZipFile(wheel) as archive:
        names = archive.namelist()
        archive.extractall(unpacked)
    for ending in (
        "core/spreadsheet/formula.lark", "fonts/FiraSans-Regular.ttf", "fonts/OFL-FiraSans.txt", "demo/mirefen.kavlet",
        "themes/reedbed.json", "icons/kavlet.svg", "applications/kavlet.desktop", "packages/kavlet-mime.xml",
        "kavlet.metainfo.xml", "de/LC_MESSAGES/kavlet.mo",
    ):  # fmt: skip
        assert any(name.endswith(ending) for name in names), ending
    out = tmp_path / "out.png"
    done = subprocess.run(
        [sys.executable, "-c", "import kavlet, kavlet.cli; print(kavlet.__file__); kavlet.cli.main()",
         "make", "funnel", str(visitor_csv), "-o", str(out)],
        cwd=tmp_path, env=os.environ | {"PYTHONPATH": str(unpacked)}, capture_output=True, text=True, check=False,
    )  # fmt: skip
    assert done.returncode == 0, done.stderr
    assert done.stdout.startswith(str(unpacked))
    assert out.exists()
