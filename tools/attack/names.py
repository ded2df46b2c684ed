"""Hostile names and texts through every way out: each file is sound, and no name becomes markup, a formula, a path."""

import csv
import io
import tempfile
import zipfile
from pathlib import Path

import msgspec
from lxml import etree, html

from kavlet.core.charts.texts import Note
from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.files.csv import harmless
from kavlet.core.files.formats import ExportOptions
from kavlet.core.values.errors import KavletError
from kavlet.desktop.main import application
from kavlet.export.outgoing import Export
from kavlet.export.ways import files, formats_for

MARK = "kvx"  # no element, attribute or member of any file may be called so
NAMES = (
    f'<{MARK} {MARK}="1">',
    f"</text></svg><{MARK}/>",
    f'"><{MARK}>',
    f"' {MARK}='1",
    f"]]><{MARK}/>",
    f"<!--{MARK}",
    f"&{MARK};",
    f"&lt;{MARK}&gt;",
    f"<script>{MARK}</script>",
    "=1+1",
    "\n=HYPERLINK(1)",
    "\uff1d1",
    "@SUM(1)",
    f"../../{MARK}",
    f"/{MARK}",
    "CON",
    "a\\b/c:d*e?f",
    "\x00\x01\x1f",
    "\ud800",
    "\u202eabc",
    "\ufdd0\uffff",
    "x" * 5_000,
    "👩‍👩‍👧‍👦" * 40,
    " ",
    "{=B2}",
    "{name}",
    "%(name)s",
    "{{{",
    f"\r\nBcc: {MARK}@x",
    "=NA()",
    "'",
    '"',
)
RECIPES = ("funnel", "gauge", "waffle", "pie", "target-columns", "two-level-ring", "points")


def hostile(text: str) -> Document:
    """The demo with a text in the place of its names, titles and first texts."""
    made = kavlet_file.load(Path(__file__).parents[2] / "src" / "kavlet" / "assets" / "demo" / "mirefen.kavlet")
    for table in made.tables:
        if table.helper is None:
            cells = {(0, 1): text, (0, 0): text, (1, 0): text} if len(table.columns) > 1 else {(0, 0): text}
            made = edits.set_cells(made, table.id, cells)
    charts = tuple(
        msgspec.structs.replace(
            one,
            name=text,
            title=f"'{text}",
            subtitle=f"'{text}",
            source=f"'{text}",
            notes=(*one.notes, Note("hostile", f"'{text}")),
        )
        for one in made.charts
    )
    tables = tuple(msgspec.structs.replace(one, name=f"{text}{one.id}") for one in made.tables)
    pages = tuple(msgspec.structs.replace(one, name=text) for one in made.pages)
    return msgspec.structs.replace(made, charts=charts, tables=tables, pages=pages)


def unsound(content: bytes, ending: str) -> str:
    """What is wrong with a file; empty where nothing is."""
    if ending in (".pptx", ".docx", ".xlsx", ".odp", ".odt", ".ods"):
        with zipfile.ZipFile(io.BytesIO(content)) as archive:
            for name in archive.namelist():
                if MARK in name or name.startswith("/") or ".." in name:
                    return f"a member is called {name}"
                if name.endswith((".xml", ".rels")) and (said := _marked(etree.fromstring(archive.read(name)))):
                    return f"{name}: {said}"
    elif ending == ".svg":
        return _marked(etree.fromstring(content))
    elif ending == ".html":
        return _marked(html.fromstring(content))
    elif ending == ".csv":
        fields = [field for row in csv.reader(io.StringIO(content.decode(), newline="")) for field in row]
        bad = [field for field in fields if harmless(field) != field and not _is_number(field)]
        return f"a field is {bad[0][:30]!r}" if bad else ""
    elif ending == ".json":
        msgspec.json.decode(content)
    elif ending == ".eml":
        head = content.replace(b"\r\n", b"\n").partition(b"\n\n")[0]
        return "a header was added" if b"\nBcc:" in head else ""
    return ""


def _is_number(field: str) -> bool:
    try:
        float(field)
    except ValueError:
        return False
    return True


def _marked(root: etree._Element) -> str:
    for element in root.iter():
        if not isinstance(element.tag, str):
            continue
        if MARK in element.tag or any(MARK in name for name in element.attrib):
            return f"a name became <{element.tag}>"
        if (
            etree.QName(element).localname == "script"
            and MARK in (element.text or "")
            and "json" not in str(element.get("type", ""))
        ):
            return "a name became a script"
    return ""


def attack(count: int, seed: int) -> list[str]:
    """All names through all ways; what did not hold, a line each."""
    del count, seed
    application()
    wrong: list[str] = []
    done = 0
    with tempfile.TemporaryDirectory() as home:
        for text in NAMES:
            document = hostile(text)
            charts = tuple(next(one.id for one in document.charts if one.recipe == name) for name in RECIPES)
            leaving = [(Export(document, (chart,)), False) for chart in charts]
            leaving += [
                (Export(document, charts, title=text), False),
                (Export(document, (), (document.pages[0].id,)), True),
            ]
            for what, pages in leaving:
                for way in formats_for(pages):
                    if way.steps or (way.raster and what is not leaving[0][0]):
                        continue
                    done += 1
                    said = _through(what, way.ending, Path(home))
                    if said:
                        wrong.append(f"{text[:24]!r} as {way.ending}: {said}")
    print(f"  {done} files")
    return wrong


def _through(what: Export, ending: str, home: Path) -> str:
    try:
        for put in files(what, ExportOptions(ending, scale=1.0), home / f"{{name}}{ending}"):
            if put.path.parent != home:
                return f"would be written to {put.path}"
            if said := unsound(put.content, ending):
                return said
    except KavletError:
        return ""
    except Exception as error:
        return f"{type(error).__name__}: {str(error)[:80]}"
    return ""
