"""Writes a page for each recipe into docs/recipes: what it answers, needs and computes, with its picture.

All of it comes from what the recipe declares and from the demo document, so that the pages stay true.
"""

import importlib
import sys
from pathlib import Path

from kavlet.core.document.document import Document
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.files import svg
from kavlet.core.pipeline.stages import picture
from kavlet.core.recipes.recipe import QUESTIONS, Parameter, Recipe
from kavlet.core.recipes.registry import RECIPES
from kavlet.core.spreadsheet.cells import Formula, text_of
from kavlet.core.spreadsheet.recalculate import recalculate
from kavlet.core.spreadsheet.table import HEADER
from kavlet.core.values.geometry import Size

ROOT = Path(__file__).parent.parent
FOLDER = ROOT / "docs" / "recipes"
DEMO = ROOT / "src" / "kavlet" / "assets" / "demo" / "mirefen.kavlet"
MAX_ROWS = 5


def page(recipe: Recipe, document: Document) -> str:
    """The page of one recipe as Markdown."""
    chart = next(one for one in document.charts if one.recipe == recipe.name)
    table = document.table(chart.table)
    values = recalculate(document.tables)
    module = importlib.import_module(f"kavlet.core.recipes.{recipe.name.replace('-', '_')}")
    what = (module.__doc__ or "").strip()
    head, _, body = what.partition("\n")
    lines = [f"# {recipe.title}", "", head, ""]
    if body.strip():
        lines += [body.strip(), ""]
    lines += [
        f"![{chart.title if not chart.title.startswith('=') else recipe.title}]({recipe.name}.svg)", "",
        f"**It answers:** {QUESTIONS[recipe.question]}", "", f"**It needs:** {recipe.needs}", "",
        "| column | kind | for |", "| --- | --- | --- |",
        *(
            f"| {role.name}{'' if role.required else ' (may be left out)'}{', one or more' if role.many else ''} "
            f"| {role.kind} | {role.meaning} |"
            for role in recipe.roles
        ),
        "",
    ]  # fmt: skip
    own = [i for i, column in enumerate(table.columns) if column.helper is None]
    lines += ["The picture’s table begins:", "", "| " + " | ".join(str(table.called(i)) for i in own) + " |"]
    lines += ["| " + " | ".join("---" for _ in own) + " |"]
    shown = [values.of(table.id)[i].values[HEADER : HEADER + MAX_ROWS] for i in own]
    lines += ["| " + " | ".join(text_of(value) for value in line) + " |" for line in zip(*shown, strict=True)]
    lines += [""]
    helpers = [(i, column) for i, column in enumerate(table.columns) if column.helper is not None]
    if helpers:
        lines += [
            "## What it computes",
            "",
            "| helper column | holds | formula in its second row |",
            "| --- | --- | --- |",
        ]
        for i, column in helpers:
            name = column.name
            declared = next((one for one in recipe.helpers if name.startswith(one.name)), None)
            cells = [cell for cell in column.cells[HEADER : HEADER + 2] if isinstance(cell, Formula)]
            formula = cells[-1].text.replace("|", "\\|") if cells else ""
            del i
            lines.append(f"| {name} | {declared.meaning if declared else ''} | `{formula}` |")
        lines += [""]
    lines += ["## Settings", "", "| setting | is | by itself | means |", "| --- | --- | --- | --- |"]
    lines += [f"| {one.name} | {_kind(one)} | {_default(one)} | {one.meaning} |" for one in recipe.parameters]
    arguments = "".join(f" --set {key}={_word(value)}" for key, value in list(chart.settings.items())[:2])
    lines += [
        "",
        "On the command line:",
        "",
        f"```\nkavlet make {recipe.name} table.csv -o chart.svg{arguments}\n```",
        "",
    ]
    return "\n".join(lines)


def _word(value: object) -> str:
    text = f"{value:g}" if isinstance(value, float) else str(value)
    return f'"{text}"' if " " in text or ";" in text else text


def _kind(one: Parameter) -> str:
    if one.type == "choice":
        return ", ".join(one.choices)
    if one.type == "number":
        span = f", {one.minimum:g} to {one.maximum:g}" if one.minimum is not None and one.maximum is not None else ""
        return f"a number or cell{span}{' ' + one.unit if one.unit else ''}"
    kinds = {"flag": "yes or no", "text": "a text or cell", "numbers": "numbers", "symbol": "a symbol’s name"}
    return (kinds | {"colour": "a colour"})[one.type]


def _default(one: Parameter) -> str:
    if isinstance(one.default, bool):
        return "yes" if one.default else "no"
    if isinstance(one.default, float):
        return f"{one.default:g}"
    return str(one.default) or "left out"


def pages() -> dict[str, str]:
    """All pages and pictures, and their index, by file."""
    document = kavlet_file.load(DEMO)
    values = recalculate(document.tables)
    made: dict[str, str] = {}
    index = ["# Recipes", "", "Each recipe is a construction: helper columns, plain layers, locked scales, labels.", ""]
    for question, words in QUESTIONS.items():
        index += [f"## {words}", ""]
        for recipe in (one for one in RECIPES.values() if one.question == question):
            chart = next(one for one in document.charts if one.recipe == recipe.name)
            made[f"{recipe.name}.svg"] = svg.dumps(picture(document, values, chart.id, Size(540, 340)).scene)
            made[f"{recipe.name}.md"] = page(recipe, document)
            index.append(f"- [{recipe.title}]({recipe.name}.md): {recipe.needs}")
        index.append("")
    return {**made, "README.md": "\n".join(index)}


def main() -> None:
    """Write them; with --check, name those that are out of date, and fail where there are any."""
    if "--check" in sys.argv:
        old = [name for name, text in pages().items() if (FOLDER / name).read_text(encoding="utf-8") != text]
        sys.exit(", ".join(old) or 0)
    FOLDER.mkdir(parents=True, exist_ok=True)
    for name, text in pages().items():
        (FOLDER / name).write_text(text, encoding="utf-8")


if __name__ == "__main__":
    main()
