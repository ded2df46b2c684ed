"""All ways out: one entry each. Deliver, the finder, the command line and docs read it. What writes a file is loaded
when one is written."""

from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Literal

from msgspec import Struct

from kavlet.core.files.formats import ExportOptions, table_content
from kavlet.core.files.office_packages import check_office_packages
from kavlet.core.messages import say
from kavlet.core.values.errors import KavletError
from kavlet.export.outgoing import Export, ExportNote, WrittenFile, as_wished, slug

Group = Literal["picture", "office", "web", "animation", "data", "mail"]


class ExportFormat(Struct, frozen=True):
    """One way out: its endings, what it is called, its kind, and what writes it.

    `many` tells that one file holds several charts or pages; `raster` that it has a resolution, `ground` that it can be
    written without one. `for_pages` False: only charts leave so. `steps`: only what goes through periods.
    """

    endings: tuple[str, ...]
    title: str
    group: Group
    write: Callable[[Export, ExportOptions], WrittenFile]
    many: bool = False
    raster: bool = False
    ground: bool = False
    for_pages: bool = True
    steps: bool = False
    sized: bool = True

    @property
    def ending(self) -> str:
        """Its usual ending."""
        return self.endings[0]


def _pictured(export: Export, options: ExportOptions) -> WrittenFile:
    from kavlet.export.pictures import PICTURES

    drawn = (export.page_pictures or export.chart_pictures)[0]
    return WrittenFile(PICTURES[options.ending](drawn, options))


def _pdf(export: Export, options: ExportOptions) -> WrittenFile:
    from kavlet.export.pictures import pdf_of, seen

    if len(export.names) == 1 and not export.pages:
        return _pictured(export, options)
    return WrittenFile(
        pdf_of((seen(one, options) for one in export.each(export.scenes)), export.title or export.names[0])
    )


def _record(export: Export, options: ExportOptions) -> WrittenFile:
    from kavlet.export.documents import record_of

    del options
    return WrittenFile(record_of(export))


def _table(export: Export, options: ExportOptions) -> WrittenFile:
    """The chart's table with its helper columns, as values."""
    table = export.document.table(export.entries[0].table)
    return WrittenFile(table_content([(table, export.values)], options.ending, options.raw))


def _office(name: str) -> Callable[[Export, ExportOptions], WrittenFile]:
    """The function of that name that writes an office file, loaded when it is first called."""

    def write(export: Export, options: ExportOptions) -> WrittenFile:
        check_office_packages()
        from kavlet.export import offices

        file: WrittenFile = getattr(offices, name)(export, options)
        return file

    return write


def _animation(export: Export, options: ExportOptions) -> WrittenFile:
    from kavlet.export.animation import animation

    return animation(export, options)


def _html(export: Export, options: ExportOptions) -> WrittenFile:
    from kavlet.export.documents import html_page

    return html_page(export, options)


def _mail(export: Export, options: ExportOptions) -> WrittenFile:
    from kavlet.export.documents import mail_draft

    return mail_draft(export, options)


EXPORT_FORMATS: tuple[ExportFormat, ...] = (
    ExportFormat((".png",), "PNG", "picture", _pictured, raster=True, ground=True),
    ExportFormat((".jpg", ".jpeg"), "JPEG", "picture", _pictured, raster=True),
    ExportFormat((".svg",), "SVG", "picture", _pictured, ground=True),
    ExportFormat((".pdf",), "PDF", "picture", _pdf, many=True),
    ExportFormat((".pptx",), "PPTX", "office", _office("slides"), many=True, ground=True),
    ExportFormat((".docx",), "DOCX", "office", _office("report"), many=True, ground=True),
    ExportFormat((".xlsx",), "XLSX", "office", _office("workbook"), many=True, ground=True, for_pages=False),
    ExportFormat((".odp",), "ODP", "office", _office("open_slides"), many=True, ground=True),
    ExportFormat((".odt",), "ODT", "office", _office("open_report"), many=True, ground=True),
    ExportFormat((".ods",), "ODS", "office", _office("open_workbook"), many=True, ground=True, for_pages=False),
    ExportFormat((".html",), "HTML", "web", _html, many=True),
    ExportFormat((".gif",), "GIF", "animation", _animation, raster=True, steps=True),
    ExportFormat((".apng",), "APNG", "animation", _animation, raster=True, steps=True),
    ExportFormat((".webp",), "WebP", "animation", _animation, raster=True, steps=True),
    ExportFormat((".eml",), "Mail draft", "mail", _mail, many=True, raster=True),
    ExportFormat((".csv",), "CSV of the figures", "data", _table, for_pages=False, sized=False),
    ExportFormat((".json",), "JSON record", "data", _record, many=True),
)


def formats_for(pages: bool) -> tuple[ExportFormat, ...]:
    """The ways that charts, or pages, can go."""
    return tuple(format_ for format_ in EXPORT_FORMATS if format_.for_pages or not pages)


def all_endings(pages: bool = False) -> tuple[str, ...]:
    """The endings of all those ways."""
    return tuple(ending for format_ in formats_for(pages) for ending in format_.endings)


def format_of(ending: str, pages: bool = False) -> ExportFormat:
    """The way of an ending. Raises KavletError for one that there is not."""
    found = next((format_ for format_ in formats_for(pages) if ending.lower() in format_.endings), None)
    if found is None:
        raise KavletError(
            say("Pages can’t be written as {ending}.", ending=ending)
            if pages
            else say("A chart can’t be written as {ending}.", ending=ending),
            remedy=say("There are {endings}.", endings=" ".join(all_endings(pages))),
        )
    return found


def written(export: Export, options: ExportOptions) -> WrittenFile:
    """The file of what leaves. Raises KavletError for an ending that is not known, a chart that can't be drawn, or a
    picture too large."""
    return format_of(options.ending, bool(export.pages)).write(as_wished(export, options), options)


class OutputFile(Struct, frozen=True):
    """A file to be written: where to, its bytes, and what is told of it."""

    path: Path
    content: bytes
    told: tuple[ExportNote, ...]


def files(export: Export, options: ExportOptions, out: Path) -> Iterator[OutputFile]:
    """The files of what leaves, one after the other: one where the format holds several, or there is one; else one for
    each, by the pattern in the name ({name}, {number}), or with its name or number added."""
    format_, names = format_of(options.ending, bool(export.pages)), export.names
    pattern = "{name}" in out.name or "{number}" in out.name
    if (format_.many and not pattern) or (len(names) == 1 and not pattern):
        written_file = written(export, options)
        yield OutputFile(out, written_file.content, written_file.told)
        return
    digits = len(str(len(export.document.pages) if export.pages else len(names)))
    names_used: set[str] = set()
    for place, name in enumerate(export.each(names)):
        number = (
            export.document.pages.index(export.document.page(export.pages[place])) + 1 if export.pages else place + 1
        )
        written_file = written(export.alone(place), options)
        file_name = _called(out, slug(name), f"{number:0{digits}}", pattern, bool(export.pages))
        if file_name in names_used:
            stem, dot, ending = file_name.rpartition(".")
            file_name = f"{stem}-{place + 1}{dot}{ending}"
        names_used.add(file_name)
        yield OutputFile(out.with_name(file_name), written_file.content, written_file.told)


def _called(out: Path, name: str, number: str, pattern: bool, pages: bool) -> str:
    if pattern:
        return out.name.replace("{name}", name).replace("{number}", number)
    return f"{out.stem}-{number if pages else name}{out.suffix}"
