"""Start of the demo and its memory against an empty Qt window with a table; and a cold command-line SVG."""

import subprocess
import sys
import tempfile
from pathlib import Path

from bench.ratio import Ratio, median, milliseconds
from bench.yardstick import NAMES

EMPTY = """
import sys
from PySide6.QtCore import QTimer
from PySide6.QtWidgets import QApplication, QMainWindow, QTableView
from PySide6.QtGui import QStandardItemModel
app = QApplication(sys.argv)
window = QMainWindow()
table = QTableView()
table.setModel(QStandardItemModel(6, 5))
window.setCentralWidget(table)
window.resize(1280, 800)
window.show()
QTimer.singleShot(0, app.quit)
app.exec()
print(next(line.split()[1] for line in open('/proc/self/status') if line.startswith('VmHWM')))
"""
DEMO = """
from PySide6.QtCore import QTimer
from kavlet.desktop.main import application, open_window
app = application()
window = open_window(demo=True)
QTimer.singleShot(0, app.quit)
app.exec()
print(next(line.split()[1] for line in open('/proc/self/status') if line.startswith('VmHWM')))
"""
MATPLOTLIB = "from bench.yardstick import matplotlib_funnel as f; f([18400.0, 6900.0, 2760.0, 1035.0, 310.0])"
TIMES = 7


def _run(code: str) -> str:
    return subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True).stdout


def measure() -> list[Ratio]:
    """Whole processes, so that imports count."""
    demo, empty = (median(milliseconds(lambda code=code: _run(code), TIMES)) for code in (DEMO, EMPTY))
    demo_memory, empty_memory = (float(_run(code).split()[-1]) / 1024 for code in (DEMO, EMPTY))
    with tempfile.TemporaryDirectory() as folder:
        table, out = Path(folder) / "table.csv", Path(folder) / "out.svg"
        table.write_text("stage,people\n" + "".join(f"{name},{9 - i}\n" for i, name in enumerate(NAMES)), "utf-8")
        command = [str(Path(sys.executable).with_name("kavlet")), "make", "funnel", str(table), "-o", str(out)]
        ours = median(milliseconds(lambda: subprocess.run(command, check=True), TIMES))
        other = median(milliseconds(lambda: _run(MATPLOTLIB), 3))
    return [
        Ratio("start of the demo, against an empty window", demo, empty, "ms", "< 2.5"),
        Ratio("memory of the demo, against that window", demo_memory, empty_memory, "MiB", "< 2"),
        Ratio("command-line SVG, cold, against matplotlib", ours, other, "ms", "smaller is better"),
    ]
