"""Dragging a label and a slice in the demo's busiest charts: a frame is a mouse move, the chart made anew, painted."""

import math

from bench.ratio import Ratio, median, milliseconds, percentile_99

FRAMES = 240
REFRESH = 1000 / 60


def measure() -> list[Ratio]:
    """Every frame against the 60th of a second a screen gives it."""
    from PySide6.QtCore import QEvent, QPointF, Qt
    from PySide6.QtGui import QMouseEvent

    from kavlet.core.pipeline.stages import picture
    from kavlet.desktop.main import application, open_window

    made = application()
    window = open_window(demo=True)
    window.resize(1280, 800)
    made.processEvents()
    store, view = window.store, window.stage.view

    def parts(chart: str) -> int:
        figure = picture(store.document, store.values, chart).figure
        return len(figure.marks) + len(figure.texts)

    def mouse(kind: QEvent.Type, at: QPointF) -> None:
        left = Qt.MouseButton.LeftButton
        button = Qt.MouseButton.NoButton if kind == QEvent.Type.MouseMove else left
        event = QMouseEvent(kind, at, view.mapToGlobal(at), button, left, Qt.KeyboardModifier.NoModifier)
        made.sendEvent(view, event)

    def dragged(start: QPointF) -> list[float]:
        turn = iter(range(FRAMES + 1))

        def frame() -> None:
            angle = next(turn) / 9
            mouse(QEvent.Type.MouseMove, start + QPointF(30 * math.cos(angle) + 12, 30 * math.sin(angle) + 12))
            made.processEvents()

        mouse(QEvent.Type.MouseButtonPress, start)
        taken = milliseconds(frame, FRAMES)
        mouse(QEvent.Type.MouseButtonRelease, start)
        return taken

    def show(chart: str) -> None:
        store.show_chart(chart)
        made.processEvents()

    def row(what: str, taken: list[float]) -> Ratio:
        note = f"{1000 / median(taken):.0f} frames/s, 99th percentile {percentile_99(taken):.1f} ms"
        return Ratio(what, median(taken), REFRESH, "ms", "<= 1 (a 60th of a second)", note)

    def labelled(chart: str) -> bool:
        return any(one.kind == "label" for one in picture(store.document, store.values, chart).figure.texts)

    busiest = max((one.id for one in store.document.charts if labelled(one.id)), key=parts)
    show(busiest)
    text = next(one for one in view.picture.figure.texts if one.kind == "label")
    what = f"label dragged in {store.chart.recipe} ({parts(busiest)} parts)"
    rows = [row(what, dragged(view.from_chart(*text.bounds.center)))]
    pie = next(one.id for one in store.document.charts if one.recipe == "pie")
    show(pie)
    sector = next(one.sector for one in view.picture.figure.marks if one.sector is not None and one.visible)
    from kavlet.core.shapes.arc import at

    middle = (sector.inner + 0.85 * (sector.outer - sector.inner), sector.start + 0.2 * (sector.end - sector.start))
    rows.append(
        row(
            f"slice dragged outward in pie ({parts(pie)} parts)",
            dragged(view.from_chart(*at(sector.center, *middle))),
        )
    )
    window.store.history.saved()
    window.close()
    return rows
