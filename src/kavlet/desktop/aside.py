"""Where the widgets of a panel wait that stand nowhere just now."""

from PySide6.QtWidgets import QWidget


class Aside(QWidget):
    """Holds widgets out of sight; they go with the panel that it belongs to. A widget without a parent would stay for
    good, and with it, by its signals, all that belongs to its window."""

    def __init__(self, parent: QWidget, *widgets: QWidget) -> None:
        super().__init__(parent)
        self.widgets = widgets
        self.hide()
        for one in widgets:
            self.take(one)

    def take(self, widget: QWidget) -> None:
        """Put a widget out of sight."""
        widget.setParent(self)
