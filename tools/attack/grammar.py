"""Small grammars of what files hold: each rule is a choice of texts in which names in braces stand for other rules."""

# ruff: noqa: E501

import random
import re
from collections.abc import Mapping

MAX_PARTS = 4_000  # rules taken for one file; what comes after is empty

_COMMON = {
    "word": (
        "a",
        "Gate",
        "",
        " ",
        "{word}{word}",
        "ä",
        "٣",
        "\u202e",
        "x" * 40_000,
        "=1+1",
        "&amp;",
        "]]&gt;",
        "NaN",
        "1e999",
    ),
    "number": ("0", "1", "-1", "2.5", "1e308", "-1e308", "9" * 400, "1e-400", "0x10", "١", "1,5", "--1", "", "inf"),
    "count": ("1", "2", "1000", "1048576", "16384", "999999999999", "-1", "0", "x", "²", "1.5", ""),
}
_FORMULA = {
    "formula": ("of:={call}", "={call}", "{call}", "of:=[.{cell}]", "of:={call}+{call}", "of:=" + "(" * 400),
    "call": ("SUM([.{cell}:.{cell}])", "SUM({cell}:{cell})", "COUNTIF({cell}:{cell};&quot;*a*a*a*&quot;)", "{number}",
             "{cell}&amp;{cell}", "NOSUCH({call})", "IF({call};{call};{call})", "#REF!", "Other!{cell}", "[.{cell}]"),
    "cell": ("A1", "B2", "$A$1", "XFD1048576", "ZZZ9", "A0", "AAAA99999999", "A", ""),
}  # fmt: skip
RULES: dict[str, Mapping[str, tuple[str, ...]]] = {
    ".csv": {
        **_COMMON,
        "file": ("{line}\n{file}", "{line}\r\n{file}", "{line}\r{file}", "{line}", "\ufeff{file}", "sep=;\n{file}"),
        "line": ("{field},{line}", "{field};{line}", "{field}\t{line}", "{field}"),
        "field": ("{word}", "{number}", '"{word}"', '"{word}""{word}', '"{word}\n{word}"', "{number} €", "({number})", "{number}%"),
    },
    ".json": {
        **_COMMON,
        "file": ("[{records}]", "{{{pairs}}}", "{value}", "[{value}]"),
        "records": ("{{{pairs}}},{records}", "{{{pairs}}}", "{value},{records}"),
        "pairs": ('"{word}":{value},{pairs}', '"{word}":{value}', '"a":{value}', ""),
        "value": ("{number}", '"{word}"', "null", "true", "[{value}]", "{{{pairs}}}", "[{value},{value}]"),
    },
    ".ods": {
        **_COMMON, **_FORMULA,
        "file": ('<office:document-content xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" '
                 'xmlns:table="urn:oasis:names:tc:opendocument:xmlns:table:1.0" '
                 'xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0" office:version="1.3"><office:body>'
                 "<office:spreadsheet>{tables}</office:spreadsheet></office:body></office:document-content>",),
        "tables": ('<table:table table:name="{word}">{rows}</table:table>', "{tables}{tables}", ""),
        "rows": ("{row}{rows}", "{row}", "<table:table-row-group>{rows}</table:table-row-group>",
                 "<table:table-header-rows>{rows}</table:table-header-rows>"),
        "row": ("<table:table-row>{cells}</table:table-row>",
                '<table:table-row table:number-rows-repeated="{count}">{cells}</table:table-row>', "<table:table-row/>"),
        "cells": ("{one}{cells}", "{one}", ""),
        "one": ('<table:table-cell office:value-type="float" office:value="{number}"/>',
                '<table:table-cell table:number-columns-repeated="{count}"/>',
                '<table:table-cell table:formula="{formula}" office:value-type="{word}" office:value="{number}"/>',
                '<table:table-cell office:value-type="string"><text:p>{word}<text:s text:c="{count}"/></text:p></table:table-cell>',
                '<table:table-cell office:value-type="date" office:date-value="{number}"/>',
                '<table:covered-table-cell table:number-columns-repeated="{count}"/>'),
    },
    ".xlsx": {
        **_COMMON, **_FORMULA,
        "file": ('<worksheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main">{extent}<sheetData>{rows}'
                 "</sheetData>{more}</worksheet>",),
        "extent": ('<dimension ref="{cell}:{cell}"/>', ""),
        "more": ('<mergeCells count="{count}"><mergeCell ref="{cell}:{cell}"/></mergeCells>', ""),
        "rows": ('<row r="{count}">{cells}</row>{rows}', '<row r="{count}">{cells}</row>', "<row>{cells}</row>", ""),
        "cells": ("{one}{cells}", "{one}", ""),
        "one": ('<c r="{cell}"><v>{number}</v></c>', '<c r="{cell}" t="s"><v>{count}</v></c>', '<c r="{cell}" t="e"><v>#N/A</v></c>',
                '<c r="{cell}"><f>{call}</f><v>{number}</v></c>', '<c r="{cell}"><f t="shared" si="{count}" ref="{cell}">{call}</f></c>',
                '<c t="inlineStr"><is><t>{word}</t></is></c>', '<c r="{cell}" s="{count}" t="{word}"><v>{word}</v></c>'),
    },
    ".svg": {
        **_COMMON,
        "file": ('<svg xmlns="http://www.w3.org/2000/svg" viewBox="{number} {number} {number} {number}">{shapes}</svg>',),
        "shapes": ("{shape}{shapes}", "{shape}", '<g transform="scale({number})">{shapes}</g>', ""),
        "shape": ('<path d="M{number} {number}{path}Z"/>', '<circle cx="{number}" cy="{number}" r="{number}"/>',
                  '<rect width="{number}" height="{number}" rx="{number}"/>', '<polygon points="{number},{number} {number}"/>',
                  '<use href="#{word}"/>', "<script>{word}</script>", '<path d="{path}" fill="url(#{word})"/>'),
        "path": ("L{number} {number}{path}", "A{number} {number} 0 1 1 {number} {number}", "C{number}", "q1 2 {number} 4{path}", ""),
    },
    ".gpl": {
        **_COMMON,
        "file": ("GIMP Palette\nName: {word}\n{lines}", "{lines}"),
        "lines": ("{count} {count} {count}\t{word}\n{lines}", "#{word}\n{lines}", "{number} {number}\n", ""),
    },
}  # fmt: skip
INSIDE = {".ods": "content.xml", ".xlsx": "xl/worksheets/"}  # the member of an archive that a grammar makes
_NAMES = re.compile(r"\{(\w+)\}")


def text_of(ending: str, chance: random.Random) -> bytes:
    """A file, or the member of one, by the grammar of its format."""
    rules, left = RULES[ending], [MAX_PARTS]

    def expanded(name: str, depth: int) -> str:
        left[0] -= 1
        if left[0] < 0 or depth > 400:
            return ""
        chosen = chance.choice(rules[name]).replace("{{", "\x01").replace("}}", "\x02")
        made = _NAMES.sub(lambda found: expanded(found[1], depth + 1), chosen)
        return made.replace("\x01", "{").replace("\x02", "}")

    return expanded("file", 0).encode("utf-8", "surrogatepass")[:3_000_000]
