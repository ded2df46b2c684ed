"""What the window's parts have to do with each other: all commands in their order, and who carries out what a place
asks for."""

from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtCore import QPoint
from PySide6.QtWidgets import QApplication

from kavlet.core.charts.layer import GATHERED
from kavlet.core.document.tables.columns import is_ready
from kavlet.core.interaction.parts import Part
from kavlet.core.messages import words
from kavlet.core.spreadsheet.table import HEADER
from kavlet.desktop.command import Command, a_chart, a_table
from kavlet.desktop.menus import history_commands
from kavlet.desktop.shell import Shell

if TYPE_CHECKING:
    from kavlet.desktop.dress.panel import DressPanel
    from kavlet.desktop.pages.panel import PagesPanel
    from kavlet.desktop.recipes.wall import RecipeWall
    from kavlet.desktop.start.panel import StartPanel

SAYING_LASTS = 12_000  # milliseconds


def declared(window: Shell) -> tuple[Command, ...]:
    """All commands, in the order of the menus."""
    store, grid = window.store, window.figures.grid
    return (
        *window.files.commands,
        *window.delivering.commands,
        Command("close", "File", "Quit", window.close, "Ctrl+Q", line_before=True),
        *history_commands(store),
        *grid.work.edit_commands,
        Command("paste", "Edit", "Paste", window.paste, "Ctrl+V", also=("grid",), own_keys=True),
        Command("find", "Edit", "Find…", window.figures.finder.open, "Ctrl+F", a_table, line_before=True),
        *window.tables.commands,
        *grid.work.commands,
        Command("choose_role", "Figures", "Choose the column’s role…", grid.choose_role, "Ctrl+R", a_chart,
                ("grid",), line_before=True),
        *window.tables.helper_commands,
        Command("edit_title", "Chart", "Edit title", lambda: window.dress.edit("title"), "F6", a_chart),
        *window.charts.title_commands,
        *window.recipes.commands,
        *window.charts.commands,
        *window.looks.commands,
        *window.pictures.commands,
        *window.looks.kit_commands,
        *window.solids.commands,
        *window.page_work.commands,
        *window.items.commands,
        *window.page_work.place_commands,
        *window.page_work.view_commands,
        *window.charts.view_commands,
        *window.proof.commands,
        *window.looking.commands,
    )  # fmt: skip


def connect(window: Shell) -> None:
    """Who carries out what the places ask for."""
    store, actions = window.store, window.actions_by_name
    for wish, command in (
        (window.figures.rename_wanted, "rename_table"), (window.figures.add_wanted, "add_empty_table"),
        (window.figures.source.update_wanted, "update_figures"),
        (window.figures.source.mine_wanted, "update_but_mine"),
        (window.figures.source.otherwise_wanted, "read_otherwise"), (window.stage.recipes_wanted, "open_recipes"),
        (window.stage.solid_wanted, "toggle_solid"),
    ):  # fmt: skip
        wish.connect(lambda *_, action=actions[command]: action.trigger())
    window.figures.grid.customContextMenuRequested.connect(
        lambda: window.menus.popup("grid", window.figures.grid.corner())
    )
    window.figures.grid.selected.connect(partial(_light_marks, window))
    window.stage.view.picked.connect(partial(_go_to_row, window))
    window.stage.view.menu_wanted.connect(partial(stage_menu, window))
    window.stage.view.dropped.connect(lambda part, what: store.guard(lambda: window.pictures.drop(part, what)))
    window.stage.solid_wanted.connect(lambda: window.dress.reveal("solid.turn"))
    window.stage.size_wanted.connect(window.charts.set_size)
    window.stage.follow(window.layers)
    _connect_proof(window)
    window.layers.more = lambda menu: window.menus.commands.fill(menu, "layers")
    window.recipes.wall_wanted.connect(window.places.show_wall)
    window.places.start_part.when_made(partial(_connect_start, window))
    window.places.wall_part.when_made(partial(_connect_wall, window))
    store.edited.connect(partial(_offer_recipes, window))
    window.files.opened.connect(partial(_opened, window))
    window.delivering.saved.connect(partial(_saved, window))
    window.tables.exported.connect(partial(_saved, window))
    window.tables.made.connect(window.recipes.wall_wanted)
    window.tables.selected = window.figures.grid.inside
    window.tables.difference_here = window.figures.difference_here
    window.places.dress_part.when_made(partial(_connect_dress, window))
    _connect_pages(window)
    window.places.pages_part.when_made(partial(_connect_page, window))
    window.places.currentChanged.connect(lambda _: window.menus.refresh())
    store.follow(window.refresh, view=True)
    store.selected.connect(window.menus.refresh)
    store.refused.connect(window.refused)
    store.pending_text.changed.connect(window.show_modified)
    window.keeper.failed.connect(window.refused)
    QApplication.instance().focusChanged.connect(window.focus_moved)  # type: ignore[union-attr]


def _connect_dress(window: Shell, dress: "DressPanel") -> None:
    """What Dress asks for, once it is there."""
    store = window.store
    for wish, command in (
        (dress.solid.toggled, "toggle_solid"), (dress.picture_wanted, "add_picture"),
        (dress.drawing_wanted, "draw_symbol"),
    ):  # fmt: skip
        wish.connect(lambda *_, action=window.actions_by_name[command]: action.trigger())
    dress.reading_wanted.connect(window.charts.read_across)
    dress.parameters.current_cell = window.figures.cell_of_chart
    dress.solid.from_wanted.connect(lambda side: store.guard(lambda: window.solids.see_from(side)))


def _connect_proof(window: Shell) -> None:
    """What Proof found of the chart in view, below it; updating figures, and what is done beside."""
    line, proof = window.stage.proof, window.proof
    window.stage.follow_proof(window.desk)
    window.proof_part.when_made(lambda panel: panel.hidden.connect(lambda _: window.menus.refresh()))
    line.mend_wanted.connect(proof.mend)
    line.list_wanted.connect(lambda: proof.show(line.first_finding) if line.first_finding else proof.toggle())
    proof.update_wanted = window.actions_by_name["update_figures"].trigger
    window.figures.source.differing.connect(lambda _: window.desk.read_again())


def _connect_pages(window: Shell) -> None:
    """The Pages place: how one comes to it and back, and what it asks for."""
    store, work = window.store, window.page_work
    work.pages_wanted.connect(window.places.show_pages)
    work.stage_wanted.connect(window.places.show_stage)
    work.present_wanted.connect(lambda page: store.guard(lambda: window.presenting.present(page)))
    work.full_view_wanted.connect(lambda: store.guard(window.presenting.full_view))


def _connect_page(window: Shell, pages: "PagesPanel") -> None:
    """What the Pages place asks for, once it is there."""
    store, canvas = window.store, pages.canvas
    canvas.menu_wanted.connect(lambda place: window.menus.popup("page", place))
    canvas.frame.menu_wanted.connect(partial(stage_menu, window))
    canvas.frame.dropped.connect(lambda part, what: store.guard(lambda: window.pictures.drop(part, what)))
    pages.strip.menu_wanted.connect(lambda place: window.menus.popup("pages", place))


def _connect_start(window: Shell, start: "StartPanel") -> None:
    """What Start asks for, once it is there."""
    for wish, command in (
        (start.open_wanted, "open_document"), (start.paste_wanted, "paste"),
        (start.empty_wanted, "add_empty_table"), (start.demo_wanted, "open_demo"),
    ):  # fmt: skip
        wish.connect(window.actions_by_name[command].trigger)
    start.path_wanted.connect(window.files.open_path)
    start.sample_wanted.connect(window.tables.put_in_sample)


def _connect_wall(window: Shell, wall: "RecipeWall") -> None:
    """What the recipes ask for, once they are there."""
    wall.chosen.connect(window.take_recipe)
    wall.reading_wanted.connect(window.charts.read_across)


def stage_menu(window: Shell, part: Part | None, place: QPoint) -> None:
    """What fits the part under the mouse, and what fits any."""
    first = [] if part is None else window.stage.offers(part, window.layers)
    if part is not None and part.path:
        first.append((words("Give this back to theme"), lambda: window.dress.give_back(part.path)))
    window.menus.popup("stage", place, first)


def _opened(window: Shell, is_table: bool) -> None:
    window.figures.grid.go_to(0, 1)
    if is_table:
        window.recipes.wall_wanted.emit()


def _saved(window: Shell, path: Path) -> None:
    window.statusBar().showMessage(words("Saved {file}", file=path), SAYING_LASTS)


def _light_marks(window: Shell) -> None:
    """Light up the marks of the rows whose cells are selected."""
    box = window.figures.grid.chosen() if window.store.chart_is_of_table else None
    window.stage.view.light(frozenset(range(box[1] - HEADER, box[3] - HEADER + 1) if box is not None else ()))


def _go_to_row(window: Shell, row: int) -> None:
    """Light up the cell that drives a mark; what is left over, or empty, has none."""
    if row >= GATHERED:
        return
    chart = window.store.here
    window.store.show_table(chart.table)
    held = chart.roles.get("value", ()) or ("",)
    window.figures.grid.go_to(max(0, window.store.there.place(held[0])), row + HEADER)


def _offer_recipes(window: Shell) -> None:
    """Bring up the wall, once, as soon as a table without a chart holds two rows of figures."""
    store, table = window.store, window.store.table
    reads = any(table.id in (entry.table, entry.reading and entry.reading.table) for entry in store.document.charts)
    if reads or table.id in window.offered or not is_ready(table) or not window.places.on_stage:
        return
    window.offered.add(table.id)
    window.recipes.wall_wanted.emit()
