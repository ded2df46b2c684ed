"""All commands, declared: where they stand in the menu, what they are called, and their shortcut."""

from msgspec import Struct


class Command(Struct, frozen=True):
    """One command; `name` is also the method of the window that carries it out."""

    name: str
    menu: str
    text: str
    shortcut: str = ""
    line_before: bool = False


COMMANDS = (
    Command("new_document", "File", "New", "Ctrl+N"),
    Command("open_document", "File", "Open…", "Ctrl+O"),
    Command("save", "File", "Save", "Ctrl+S", line_before=True),
    Command("save_as", "File", "Save as…", "Ctrl+Shift+S"),
    Command("deliver", "File", "Deliver…", "Ctrl+E", line_before=True),
    Command("open_demo", "File", "Open the demo document", line_before=True),
    Command("close", "File", "Quit", "Ctrl+Q", line_before=True),
    Command("undo", "Edit", "Undo", "Ctrl+Z"),
    Command("redo", "Edit", "Redo", "Ctrl+Shift+Z"),
    Command("cut", "Edit", "Cut", "Ctrl+X", line_before=True),
    Command("copy", "Edit", "Copy", "Ctrl+C"),
    Command("paste", "Edit", "Paste", "Ctrl+V"),
    Command("clear", "Edit", "Clear cells", "Del"),
    Command("insert_rows_above", "Figures", "Insert rows above", "Ctrl++"),
    Command("insert_rows_below", "Figures", "Insert rows below", "Ctrl+Shift+Return"),
    Command("delete_rows", "Figures", "Delete rows", "Ctrl+-"),
    Command("insert_column", "Figures", "Insert column after", line_before=True),
    Command("delete_columns", "Figures", "Delete columns"),
    Command("choose_role", "Figures", "Choose the column’s role…", "Ctrl+R", line_before=True),
    Command("edit_title", "Chart", "Edit title", "F6"),
    Command("title_from_cell", "Chart", "Title from the current cell", "Ctrl+T"),
    Command("look_light", "View", "Light window"),
    Command("look_dark", "View", "Dark window"),
    Command("look_system", "View", "As the system"),
    Command("about", "Help", "About Kavlet"),
)
