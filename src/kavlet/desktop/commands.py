"""All commands, declared: where they stand in the menu, what they are called, and their shortcut."""

from msgspec import Struct


class Command(Struct, frozen=True):
    """One command; `name` is also the method that carries it out, of the window or of one of its places."""

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
    Command("paste_values", "Edit", "Paste values only", "Ctrl+Shift+V"),
    Command("clear", "Edit", "Clear cells", "Del"),
    Command("find", "Edit", "Find…", "Ctrl+F", line_before=True),
    Command("add_empty_table", "Tables", "New table"),
    Command("add_from_file", "Tables", "Add a table from a file…", "Ctrl+Shift+O"),
    Command("rename_table", "Tables", "Rename table…"),
    Command("copy_table", "Tables", "Copy table"),
    Command("delete_table", "Tables", "Delete table"),
    Command("make_chart", "Tables", "Make a chart of this table", line_before=True),
    Command("export_table", "Tables", "Export table…", line_before=True),
    Command("read_otherwise", "Tables", "Read the source otherwise…", line_before=True),
    Command("update_figures", "Tables", "Update figures", "F9"),
    Command("unlink_source", "Tables", "Stop following the source"),
    Command("insert_rows", "Figures", "Insert rows above", "Ctrl++"),
    Command("insert_rows_below", "Figures", "Insert rows below", "Ctrl+Shift+Return"),
    Command("delete_rows", "Figures", "Delete rows", "Ctrl+-"),
    Command("rows_up", "Figures", "Move rows up", "Alt+Up"),
    Command("rows_down", "Figures", "Move rows down", "Alt+Down"),
    Command("insert_column", "Figures", "Insert column after", line_before=True),
    Command("delete_columns", "Figures", "Delete columns"),
    Command("columns_left", "Figures", "Move columns left", "Alt+Left"),
    Command("columns_right", "Figures", "Move columns right", "Alt+Right"),
    Command("fill_down", "Figures", "Fill down", "Ctrl+D", line_before=True),
    Command("fill_right", "Figures", "Fill right", "Ctrl+Shift+D"),
    Command("sort_up", "Figures", "Sort rows up", line_before=True),
    Command("sort_down", "Figures", "Sort rows down"),
    Command("transpose", "Figures", "Turn rows into columns"),
    Command("as_number", "Figures", "Write as number", "Ctrl+Shift+1", line_before=True),
    Command("as_percent", "Figures", "Write as percent", "Ctrl+Shift+5"),
    Command("as_date", "Figures", "Write as date", "Ctrl+Shift+3"),
    Command("more_decimals", "Figures", "More decimals"),
    Command("fewer_decimals", "Figures", "Fewer decimals"),
    Command("choose_role", "Figures", "Choose the column’s role…", "Ctrl+R", line_before=True),
    Command("fold_helpers", "Figures", "Fold helper columns", "Ctrl+H"),
    Command("give_back", "Figures", "Give helper cells back to the recipe"),
    Command("cut_loose", "Figures", "Cut helper column loose"),
    Command("edit_title", "Chart", "Edit title", "F6"),
    Command("title_from_cell", "Chart", "Title from the current cell", "Ctrl+T"),
    Command("look_light", "View", "Light window"),
    Command("look_dark", "View", "Dark window"),
    Command("look_system", "View", "As the system"),
    Command("about", "Help", "About Kavlet"),
)
