"""Renews the catalogues of what is said to people, and compiles them.

    python tools/words.py          gather all texts from the source, renew languages/*/LC_MESSAGES/kavlet.po, compile
    python tools/words.py --check  say what is missing or out of date, and fail

Sentences are found where they are said (`say`, `words` …); what is only declared is read from the registries.
"""

import ast
import itertools
import re
import sys
from collections.abc import Iterator
from datetime import UTC, datetime
from importlib import import_module
from io import BytesIO
from pathlib import Path
from typing import Any, get_args

import click
from babel.messages.catalog import Catalog
from babel.messages.mofile import read_mo, write_mo
from babel.messages.pofile import read_po, write_po

from kavlet.cli.group import FILES, cli
from kavlet.core.files.formats import TABLES
from kavlet.core.interaction.parts import TEXTS, PartKind
from kavlet.core.layout.kinds import kinds, type_name
from kavlet.core.messages import DOMAIN, ENGLISH, FOLDER, LANGUAGES, NAME, SYMBOL
from kavlet.core.pages.fields import OF_KIND, OF_PAGE, PLACE
from kavlet.core.pages.page import SIZES
from kavlet.core.proof.finding import Severity
from kavlet.core.recipes.recipe import GUARD, QUESTIONS
from kavlet.core.recipes.registry import RECIPES
from kavlet.core.scene.readers import TITLES, VIEWS
from kavlet.core.shapes.symbol import shelf
from kavlet.core.spreadsheet.cells import ErrorValue
from kavlet.core.spreadsheet.functions import FUNCTIONS
from kavlet.core.styling.palettes import palettes
from kavlet.core.styling.schemes import RELATIONS
from kavlet.core.styling.theme import themes
from kavlet.core.values import sizes
from kavlet.export.ways import EXPORT_FORMATS

SOURCE = Path(__file__).parent.parent / "src"
SAID = {"say": 0, "words": 0, "drawn": 0, "words_in": 1}  # where the text stands among the arguments
DECLARED = {"Command": (1, 2), "of": (2,), "Field": (0, 1), "Format": (1,), "_of_number": (0,),
            "_of_type": (0,), "Check": (1, 2)}  # fmt: skip
KEYWORDS = {"named": ("Field",), "does": ("Field",), "help": ("option",)}
NAMED = "named"
ONLY_A_FIELD = re.compile(r"“?\{\w+\}”?|")
DAY = datetime(2026, 1, 1, tzinfo=UTC)  # a file that is renewed without a change stays the same
Text = tuple[str, str, str]  # one, many, context


def _commands() -> list[click.Command]:
    """All commands, with the files that declare them loaded."""
    context = click.Context(cli)
    return [command for name in FILES if (command := cli.get_command(context, name)) is not None]


def said() -> dict[Text, list[tuple[str, int]]]:
    """All texts with the places they stand at, in the order of the files."""
    found: dict[Text, list[tuple[str, int]]] = {}
    for file in sorted(SOURCE.rglob("*.py")):
        place = str(file.relative_to(SOURCE.parent))
        for text, line in _in_source(ast.parse(file.read_text(encoding="utf-8")), file):
            found.setdefault(text, []).append((place, line))
    for text in _declared():
        found.setdefault(text, [])
    return {text: places for text, places in found.items() if text[0] and not ONLY_A_FIELD.fullmatch(text[0])}


def _in_source(tree: ast.Module, file: Path) -> Iterator[tuple[Text, int]]:
    for node in ast.walk(tree):
        if not isinstance(node, ast.Call):
            continue
        called = node.func.attr if isinstance(node.func, ast.Attribute) else getattr(node.func, "id", "")
        arguments = node.args
        if called in SAID and len(arguments) > SAID[called]:
            yield from (((text, "", ""), node.lineno) for text in _constants(arguments[SAID[called]]))
        elif called == NAMED and arguments:
            yield from (((text, "", NAME), node.lineno) for text in _constants(arguments[0]))
        elif called == "counted":
            one, many = (next(iter(_constants(argument))) for argument in arguments[:2])
            yield (one, many, ""), node.lineno
        elif called == "when":
            for rule in (*arguments, *(held.value for held in node.keywords)):
                yield from (((text, "", ""), node.lineno) for text in _constants(_last(rule)))
        elif called == "choices" and arguments and isinstance(arguments[0], ast.Name):
            yield from (((text, "", NAME), node.lineno) for text in _of_literal(file, arguments[0].id))
            for other in arguments[1:]:
                yield from (((text, "", NAME), node.lineno) for text in _constants(other))
        else:
            for at in DECLARED.get(called, ()):
                if len(arguments) > at:
                    yield from (((text, "", ""), node.lineno) for text in _constants(arguments[at]))
            for held in node.keywords:
                if called in KEYWORDS.get(held.arg or "", ()):
                    yield from (((text, "", ""), node.lineno) for text in _constants(held.value))


def _constants(node: ast.expr) -> Iterator[str]:
    """The texts an argument can be: itself, the branches of a condition, the values of a dictionary."""
    if isinstance(node, ast.Constant) and isinstance(node.value, str):
        yield node.value
    elif isinstance(node, ast.IfExp):
        yield from _constants(node.body)
        yield from _constants(node.orelse)
    elif isinstance(node, ast.Subscript):
        yield from _constants(node.value)
    elif isinstance(node, ast.Dict | ast.BoolOp):
        for value in node.values:
            yield from _constants(value)


def _last(rule: ast.expr) -> ast.expr:
    return rule.elts[-1] if isinstance(rule, ast.Tuple) else rule


def _of_literal(file: Path, name: str) -> tuple[str, ...]:
    module = import_module(".".join(file.relative_to(SOURCE).with_suffix("").parts))
    return tuple(one for one in get_args(getattr(module, name, None)) if isinstance(one, str))


def _declared() -> Iterator[Text]:
    """What recipes, layer types, functions, themes, palettes, formats and symbols are called and mean."""
    for recipe in RECIPES.values():
        yield from _plain(recipe.title, recipe.needs, recipe.known_as, recipe.tells.kind)
        for role in recipe.roles:
            yield from _named(role.name)
            yield from _plain(role.meaning)
        for parameter in recipe.parameters:
            yield from _named(parameter.name, *parameter.choices)
            yield from _plain(parameter.meaning)
        for helper in recipe.helpers:
            yield from _named(helper.name)
            yield from _plain(helper.meaning)
    yield from _named(*TITLES.values(), *get_args(Severity))
    yield from _plain(*VIEWS.values())
    yield from _named(GUARD.name)
    yield from _plain(GUARD.meaning)
    yield from _plain(*QUESTIONS.values(), *(error.meaning for error in ErrorValue))
    for kind in kinds():
        yield from _named(type_name(kind))
        for field in (*kind.fields, *kind.row_fields):
            yield from _plain(field.group, field.label, field.named)
            yield from _named(*(text.text for _, text in field.choices))
    for field in (*itertools.chain(*OF_KIND.values()), *PLACE, *OF_PAGE):
        yield from _plain(field.group, field.label, field.does)
        yield from _named(*(text.text for _, text in field.choices))
    yield from _named(*SIZES)
    for function in FUNCTIONS.values():
        yield from _plain(function.help)
        yield from _named(*(part.strip(" []") for part in function.arguments.split(";")))
    yield from _plain(*(one.title for one in themes().values()), *(one.title for one in palettes().values()))
    yield from _plain(*(one.title for one in TABLES), *(way.title for way in EXPORT_FORMATS))
    yield from _plain(*(command.help or "" for command in (cli, *_commands())))
    yield from _named(*sizes.CHARTS, *get_args(PartKind), *TEXTS, *RELATIONS)
    yield from ((name, "", SYMBOL) for name in shelf())


def _plain(*texts: str) -> Iterator[Text]:
    return ((text, "", "") for text in texts)


def _named(*texts: str) -> Iterator[Text]:
    return ((text, "", NAME) for text in texts)


def renewed(code: str, found: dict[Text, list[tuple[str, int]]]) -> Catalog:
    """The catalogue of a language with all texts, what was translated before kept; texts that are gone are dropped."""
    path = catalogue_path(code)
    held = _read(path, code) if path.exists() else Catalog(locale=code)
    made = Catalog(code, DOMAIN, f"# {LANGUAGES[code]}", "Kavlet", fuzzy=False, creation_date=DAY, revision_date=DAY)
    for (one, many, context), places in sorted(found.items(), key=lambda entry: (entry[1][:1], entry[0])):
        key: Any = (one, many) if many else one
        before = held.get(one, context or None)
        string = before.string if before is not None and bool(before.pluralizable) == bool(many) else None
        held_at: list[Any] = [(place, None) for place in dict.fromkeys(place for place, _ in places)]
        made.add(key, string, held_at, context=context or None)
    return made


def missing(catalogue: Catalog) -> list[str]:
    """The texts a catalogue has no words for."""
    return [
        str(one.id)
        for one in catalogue
        if one.id and not (all(one.string) if isinstance(one.string, list | tuple) else one.string)
    ]


def catalogue_path(code: str) -> Path:
    return FOLDER / code / "LC_MESSAGES" / f"{DOMAIN}.po"


def _read(path: Path, code: str) -> Catalog:
    with path.open("rb") as file:
        return read_po(file, locale=code, domain=DOMAIN)


def written(catalogue: Catalog) -> bytes:
    """A catalogue as its file holds it."""
    out = BytesIO()
    write_po(out, catalogue, width=110, sort_output=False, omit_header=False, include_lineno=False)
    return out.getvalue()


def compiled(content: bytes) -> bytes:
    """A catalogue's file as gettext reads it, as `setup.py` makes it."""
    out = BytesIO()
    write_mo(out, read_po(BytesIO(content)))
    return out.getvalue()


def _alike(file: Path, content: bytes) -> bool:
    """Whether a file holds that; a compiled one may name another version of what compiled it."""
    if file.suffix == ".po":
        return file.read_bytes() == content
    texts = [
        [(message.id, message.context, message.string) for message in read_mo(BytesIO(held)) if message.id]
        for held in (file.read_bytes(), content)
    ]
    return texts[0] == texts[1]


def main() -> int:
    """Renew, or check, every language's catalogue."""
    found, failed = said(), False
    for code in LANGUAGES:
        if code == ENGLISH:
            continue
        catalogue, path = renewed(code, found), catalogue_path(code)
        content = written(catalogue)
        files = {path: content, path.with_suffix(".mo"): compiled(content)}
        without = missing(catalogue)
        print(f"{LANGUAGES[code]}: {len(found)} texts, {len(without)} without words")
        if "--check" in sys.argv:
            old = [file.name for file, content in files.items() if not file.exists() or not _alike(file, content)]
            print(*(f"  out of date: {name}" for name in old), *(f"  no words: {text}" for text in without), sep="\n")
            failed = failed or bool(old or without)
            continue
        path.parent.mkdir(parents=True, exist_ok=True)
        for file, content in files.items():
            file.write_bytes(content)
    return int(failed)


if __name__ == "__main__":
    sys.exit(main())
