"""From a table to SVG text, six charts, against matplotlib and vl-convert-python drawing the same, in one run."""

import io
import itertools
import json
from collections.abc import Callable
from typing import Any

import msgspec

from bench.ratio import Ratio, median, milliseconds
from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.files import svg
from kavlet.core.pipeline.stages import picture
from kavlet.core.spreadsheet.cells import Cell
from kavlet.core.spreadsheet.recalculate import recalculate

TURNS = 12
NAMES = ["Reed", "Mere", "Carr", "Dyke", "Leat", "Mill", "Hide", "Gate", "Pool", "Bank", "Path", "Ferry"]
SHARES = [41.6, 23.3, 19.8, 11.2, 4.1]


def _document(recipe: str, rows: list[list[Cell]], **settings: Any) -> Document:
    made, table = edits.add_table(Document(), "T", rows)
    made, chart = edits.add_chart(made, table, recipe)
    return edits.change_chart(made, chart, settings=settings)


def _ours(made: Document) -> Callable[[], object]:
    """Another number each time, so that nothing can be reused; through recalculation, all stages and the writer."""
    turns = iter(range(1, 100_000))

    def draw() -> str:
        table = made.tables[0]
        column = next(i for i, one in enumerate(table.columns) if isinstance(one.cells[1], float))
        held = table.columns[column]
        cells = (held.cells[0], held.cells[1] + next(turns) * 1e-6, *held.cells[2:])  # type: ignore[operator]
        columns = list(table.columns)
        columns[column] = msgspec.structs.replace(held, cells=cells)
        tables = (msgspec.structs.replace(table, columns=tuple(columns)),)
        document = msgspec.structs.replace(made, tables=tables)
        return svg.dumps(picture(document, recalculate(document.tables), document.charts[0].id).scene)

    return draw


def _pyplot(draw: Callable[[Any], None]) -> Callable[[], object]:
    import matplotlib as mpl

    mpl.use("Agg")
    from matplotlib import pyplot as plt

    def run() -> None:
        figure, axes = plt.subplots(figsize=(640 / 72, 360 / 72))
        draw(axes)
        figure.savefig(io.BytesIO(), format="svg")
        plt.close(figure)

    return run


def _vega(spec: dict[str, Any]) -> Callable[[], object]:
    import vl_convert as vlc

    text = json.dumps({"width": 560, "height": 280, **spec})
    return lambda: vlc.vegalite_to_svg(text)


def _data(*columns: tuple[str, list[Any]]) -> dict[str, Any]:
    names = [name for name, _ in columns]
    lines = zip(*(values for _, values in columns), strict=True)
    return {"values": [dict(zip(names, line, strict=True)) for line in lines]}


def _rows(head: list[str], *columns: list[Any]) -> list[list[Cell]]:
    return [list(head), *(list(line) for line in zip(*columns, strict=True))]


def _charts() -> list[tuple[str, Document, Callable[[], object], Callable[[], object]]]:
    stages = [18400.0, 6900.0, 2760.0, 1035.0, 310.0]
    offsets = [(max(stages) - value) / 2 for value in stages]
    changes = [212.0, 86.0, 48.0, 19.0, -94.0, -63.0, -27.0]
    running = [sum(changes[: i + 1]) for i in range(len(changes))]
    bases = [0.0, *(min(a, b) for a, b in itertools.pairwise(running))]
    counts = [200.0, 180.0, 160.0, 140.0, 120.0, 100.0, 60.0, 40.0]
    three = [[float(3 + (i * k) % 11) for i in range(12)] for k in (2, 3, 5)]
    grid = [(i % 10, i // 10, "abcde"[min(4, i // 22)]) for i in range(100)]
    symbols = [(j, i) for i, count in enumerate(counts) for j in range(int(count / 5))]
    ring = [float(4 + i * 3 % 9) for i in range(12)]

    def funnel(axes: Any) -> None:
        axes.barh(NAMES[:5], stages, left=offsets)
        axes.invert_yaxis()
        axes.axis("off")
        for i, value in enumerate(stages):
            axes.text(9200, i, f"{value:,.0f}", ha="center", va="center")

    def waffle(axes: Any) -> None:
        from matplotlib.patches import Rectangle

        for x, y, kind in grid:
            axes.add_patch(Rectangle((x, y), 0.86, 0.86, color=f"C{'abcde'.index(kind)}"))
        axes.set_xlim(0, 10)
        axes.set_ylim(0, 10)
        axes.axis("off")

    def pictogram(axes: Any) -> None:
        axes.scatter([x for x, _ in symbols], [y for _, y in symbols], marker="*", s=90)
        axes.set_yticks(range(8), NAMES[:8])

    def two_rings(axes: Any) -> None:
        axes.pie([sum(ring[i : i + 3]) for i in range(0, 12, 3)], radius=0.6, labels=NAMES[:4], labeldistance=0.5)
        axes.pie(ring, radius=1, wedgeprops={"width": 0.4}, labels=NAMES)

    def bridge(axes: Any) -> None:
        axes.bar(NAMES[:7], [abs(change) for change in changes], bottom=bases)
        for i, change in enumerate(changes):
            axes.text(i, bases[i] + abs(change), f"{change:+.0f}", ha="center")

    def clustered(axes: Any) -> None:
        for k, values in enumerate(three):
            axes.bar([i + 0.25 * k for i in range(12)], values, width=0.25, label=f"s{k}")
        axes.set_xticks([i + 0.25 for i in range(12)], NAMES)
        axes.legend()
        axes.grid(axis="y")

    sorted_x = {"field": "n", "type": "nominal", "sort": None}
    return [
        (
            "funnel",
            _document("funnel", _rows(["n", "v"], NAMES[:5], stages)),
            _pyplot(funnel),
            _vega(
                {
                    "data": _data(
                        ("n", NAMES[:5]),
                        ("v", stages),
                        ("lo", offsets),
                        ("hi", [o + v for o, v in zip(offsets, stages, strict=True)]),
                    ),
                    "encoding": {"y": {**sorted_x, "axis": {"title": None}}},
                    "layer": [
                        {
                            "mark": "bar",
                            "encoding": {
                                "x": {"field": "lo", "type": "quantitative", "axis": None},
                                "x2": {"field": "hi"},
                            },
                        },
                        {"mark": "text", "encoding": {"text": {"field": "v", "format": ","}}},
                    ],
                }
            ),
        ),
        (
            "waffle",
            _document("waffle", _rows(["n", "v"], NAMES[:5], SHARES)),
            _pyplot(waffle),
            _vega(
                {
                    "data": _data(
                        ("x", [x for x, _, _ in grid]), ("y", [y for _, y, _ in grid]), ("k", [k for _, _, k in grid])
                    ),
                    "mark": {"type": "square", "size": 500, "filled": True},
                    "encoding": {
                        "x": {"field": "x", "type": "ordinal", "axis": None},
                        "y": {"field": "y", "type": "ordinal", "axis": None},
                        "color": {"field": "k"},
                    },
                }
            ),
        ),
        (
            "200-symbol pictogram",
            _document("pictogram", _rows(["n", "v"], NAMES[:8], counts), unit=5.0),
            _pyplot(pictogram),
            _vega(
                {
                    "data": _data(("x", [x for x, _ in symbols]), ("y", [y for _, y in symbols])),
                    "mark": {"type": "point", "shape": "triangle", "size": 90, "filled": True},
                    "encoding": {
                        "x": {"field": "x", "type": "quantitative", "axis": None},
                        "y": {"field": "y", "type": "ordinal"},
                    },
                }
            ),
        ),
        (
            "two-level ring",
            _document("two-level-ring", _rows(["n", "g", "v"], NAMES, ["abcd"[i // 3] for i in range(12)], ring)),
            _pyplot(two_rings),
            _vega(
                {
                    "data": _data(("n", NAMES), ("g", ["abcd"[i // 3] for i in range(12)]), ("v", ring)),
                    "encoding": {
                        "theta": {"field": "v", "type": "quantitative", "stack": True},
                        "order": {"field": "g"},
                    },
                    "layer": [
                        {"mark": {"type": "arc", "outerRadius": 70}, "encoding": {"color": {"field": "g"}}},
                        {
                            "mark": {"type": "arc", "innerRadius": 72, "outerRadius": 120},
                            "encoding": {"color": {"field": "n"}},
                        },
                        {"mark": {"type": "text", "radius": 138}, "encoding": {"text": {"field": "n"}}},
                    ],
                }
            ),
        ),
        (
            "bridge",
            _document("bridge", _rows(["n", "v"], NAMES[:7], changes)),
            _pyplot(bridge),
            _vega(
                {
                    "data": _data(
                        ("n", NAMES[:7]),
                        ("v", changes),
                        ("lo", bases),
                        ("hi", [b + abs(c) for b, c in zip(bases, changes, strict=True)]),
                    ),
                    "encoding": {"x": sorted_x},
                    "layer": [
                        {
                            "mark": "bar",
                            "encoding": {"y": {"field": "lo", "type": "quantitative"}, "y2": {"field": "hi"}},
                        },
                        {
                            "mark": {"type": "text", "dy": -8},
                            "encoding": {"y": {"field": "hi", "type": "quantitative"}, "text": {"field": "v"}},
                        },
                    ],
                }
            ),
        ),
        (
            "12 clustered columns",
            _document("columns", _rows(["n", "a", "b", "c"], NAMES, *three)),
            _pyplot(clustered),
            _vega(
                {
                    "data": _data(
                        ("n", NAMES * 3),
                        ("s", [s for s in "abc" for _ in NAMES]),
                        ("v", [v for one in three for v in one]),
                    ),
                    "mark": "bar",
                    "encoding": {
                        "x": sorted_x,
                        "xOffset": {"field": "s"},
                        "y": {"field": "v", "type": "quantitative"},
                        "color": {"field": "s"},
                    },
                }
            ),
        ),
    ]


def measure() -> list[Ratio]:
    """Medians of several turns each, after one to warm up; and the cost of a hundred times as many rows."""
    found: list[Ratio] = []
    for name, document, pyplot, vega in _charts():
        times = []
        for draw in (_ours(document), pyplot, vega):
            draw()
            times.append(median(milliseconds(draw, TURNS)))
        found.append(Ratio(f"{name} to SVG, against matplotlib", times[0], times[1], "ms", "<= 0.1"))
        found.append(Ratio(f"{name} to SVG, against vl-convert", times[0], times[2], "ms", "<= 0.25, 0.1"))
    few, many = (
        median(
            milliseconds(
                _ours(
                    _document(
                        "columns", _rows(["n", "v"], [f"row {i}" for i in range(n)], [float(i % 37) for i in range(n)])
                    )
                ),
                5,
            )
        )
        for n in (10, 1_000)
    )
    found.append(Ratio("columns of 1,000 rows, against 10", many, few, "ms", "< 100, as rows grow"))
    return found
