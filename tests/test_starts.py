"""What a start loads and makes, counted: times differ from machine to machine, counts hold speed."""

import json
import os
import subprocess
import sys
from pathlib import Path
from typing import Any

SAID = """
import json, sys
ours = [name for name in sys.modules if name == "kavlet" or name.startswith("kavlet.")]
said = {"ours": len(ours), "names": ours, "all": list(sys.modules)}
"""
COMMAND = f"""
import atexit, sys
def say():
    {SAID.strip().replace(chr(10), chr(10) + "    ")}
    print(json.dumps(said), file=sys.stderr)
atexit.register(say)
from kavlet.cli import main
main()
"""
WINDOW = f"""
import json, os, sys
from PySide6.QtCore import QEvent, QObject
from PySide6.QtWidgets import QWidget
from kavlet.desktop import main

app, said = main.application(), {{}}
window = main.open_window(None, True)

class FirstPaint(QObject):
    def eventFilter(self, watched, event):
        global said
        if event.type() == QEvent.Type.Paint and not said:
            {SAID.strip().replace(chr(10), chr(10) + "            ")}
            said["widgets"] = len(window.findChildren(QWidget))
        return False

first = FirstPaint()
app.installEventFilter(first)
for _ in range(200):
    app.processEvents()
    if said:
        break
print(json.dumps(said), file=sys.stderr, flush=True)
os._exit(0)  # the window need not be taken apart
"""


def started(code: str, *arguments: str, folder: Path) -> dict[str, Any]:
    places = {name: str(folder) for name in ("XDG_CONFIG_HOME", "XDG_STATE_HOME", "XDG_DATA_HOME")}
    done = subprocess.run(
        [sys.executable, "-c", code, *arguments],
        capture_output=True, text=True, check=True, cwd=folder,
        env={**os.environ, **places, "QT_QPA_PLATFORM": "offscreen"},
    )  # fmt: skip
    said: dict[str, Any] = json.loads(done.stderr.strip().splitlines()[-1])
    return said


def test_the_version_costs_next_to_nothing(tmp_path: Path) -> None:
    said = started(COMMAND, "--version", folder=tmp_path)
    assert said["ours"] <= 15, said["names"]
    assert not {"babel", "lark", "numpy", "lxml", "kavlet.core.document.document"} & set(said["all"])


def test_a_chart_as_svg_loads_its_own_recipe_and_layers(tmp_path: Path) -> None:
    (tmp_path / "gates.csv").write_text("gate,guests\nNorth,40\nSouth,25\n", encoding="utf-8")
    said = started(COMMAND, "make", "columns", "gates.csv", "-o", "gates.svg", folder=tmp_path)
    assert said["ours"] <= 220, said["names"]
    assert not {"lark", "lxml", "http", "regex", "PIL", "numpy", "PySide6"} & set(said["all"])
    assert "kavlet.core.recipes.gauge" not in said["names"]


def test_the_window_makes_what_is_seen_first(tmp_path: Path) -> None:
    """Pages, Deliver, the recipes, Start, Proof and Dress are loaded and made when they are first seen."""
    said = started(WINDOW, folder=tmp_path)
    assert said["ours"] <= 330, said["names"]
    assert said["widgets"] <= 190
    later = ("office_model", "proof.registry", "desktop.dress.panel", "deliver.deliver_dialog", "pages.panel",
             "recipes.wall", "start.panel", "proof.panel")  # fmt: skip
    assert [name for name in said["names"] if name.endswith(later)] == []
    assert not {"lxml", "http", "PIL", "numpy", "docx", "pptx"} & set(said["all"])
