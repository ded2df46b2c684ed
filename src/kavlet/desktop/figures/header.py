"""The header over the columns: letters, and above them the role chips that say what each column is for."""

from PySide6.QtCore import QPoint, QRect, QSize, Qt
from PySide6.QtGui import QAction, QBrush, QMouseEvent, QPainter, QPen
from PySide6.QtWidgets import QHeaderView, QMenu, QWidget

from kavlet.core.document import edits
from kavlet.core.messages import named, say, words
from kavlet.core.recipes.recipe import GUARD
from kavlet.desktop.store import Store
from kavlet.desktop.stylesheet import colours, qcolor

CHIP_BAND, LETTER_BAND = 30, 22


class RoleHeader(QHeaderView):
    """Draws a chip per column. Click a chip to choose a role; drag it to another column to move the role."""

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(Qt.Orientation.Horizontal, parent)
        self._store = store
        self._dragged: str | None = None
        self._pressed = -1
        self._over = -1
        self.resizing = False  # while the author drags a column's edge
        self.setSectionsClickable(True)
        self.setHighlightSections(False)
        self.setMouseTracking(True)
        self.setMinimumSectionSize(56)
        self.setAccessibleName(words("Columns and their roles"))
        self._chips: list[str] = []
        store.follow(self._refresh, view=True)

    def _refresh(self) -> None:
        """Repaint when a role has moved; other edits leave the header alone."""
        chips = [self.chip_text(section) for section in range(self.count())]
        if chips != self._chips:
            self._chips = chips
            self.viewport().update()

    def sizeHint(self) -> QSize:
        return QSize(super().sizeHint().width(), CHIP_BAND + LETTER_BAND)

    def role_of(self, section: int) -> str:
        """The role of a column; empty where it has none."""
        table, chart = self._store.table, self._store.chart
        ids = [column.id for column in table.columns[section : section + 1]]
        roles = chart.roles if chart.table == table.id else {}
        return next((role for role, held in roles.items() if set(ids) & set(held)), "")

    def is_helper(self, section: int) -> bool:
        """Whether a column is a recipe's helper."""
        column = self._store.table.column(section)
        return column is not None and column.helper is not None

    def chip_text(self, section: int) -> str:
        """What the chip over a column says: its role, “helper”, or nothing."""
        return words("helper") if self.is_helper(section) else str(named(self.role_of(section)))

    def chip_rect(self, section: int) -> QRect:
        """Where a column's chip is drawn, in the viewport."""
        text = self.chip_text(section) or words("role")
        width = min(self.sectionSize(section) - 8, self.fontMetrics().horizontalAdvance(text) + 18)
        return QRect(self.sectionViewportPosition(section) + 4, 5, width, CHIP_BAND - 10)

    def paintSection(self, painter: QPainter, rect: QRect, logical: int) -> None:
        c = colours()
        painter.save()
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(rect, qcolor(c.panel))
        painter.setPen(QPen(qcolor(c.line), 1))
        painter.drawLine(rect.bottomLeft(), rect.bottomRight())
        letters = QRect(rect.left() + 8, rect.top() + CHIP_BAND, rect.width() - 16, LETTER_BAND)
        painter.setPen(qcolor(c.quiet))
        text = str(self.model().headerData(logical, Qt.Orientation.Horizontal) or "")
        painter.drawText(letters, Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignLeft, text)
        self._paint_chip(painter, logical)
        painter.restore()

    def _paint_chip(self, painter: QPainter, logical: int) -> None:
        c = colours()
        text = self.chip_text(logical)
        chip = self.chip_rect(logical)
        target = self._dragged is not None and logical == self._over
        is_helper = self.is_helper(logical)
        if is_helper:
            painter.setPen(QPen(qcolor(c.helper_line), 1, Qt.PenStyle.DashLine))
            painter.setBrush(QBrush(qcolor(c.helper)))
        elif text:
            painter.setPen(QPen(qcolor(c.accent), 1))
            painter.setBrush(QBrush(qcolor(c.accent)))
        else:
            painter.setPen(QPen(qcolor(c.accent if target else c.quiet), 1, Qt.PenStyle.DotLine))
            painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawRoundedRect(chip, 10, 10)
        painter.setPen(qcolor(c.ink if is_helper else c.on_accent if text else c.quiet))
        painter.drawText(chip, Qt.AlignmentFlag.AlignCenter, text or words("role"))
        if target:
            painter.setPen(QPen(qcolor(c.second), 2))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRoundedRect(chip.adjusted(-1, -1, 1, 1), 11, 11)

    def _chip_at(self, at: QPoint) -> int:
        section = self.logicalIndexAt(at)
        return section if section >= 0 and at.y() < CHIP_BAND and self.chip_rect(section).contains(at) else -1

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self._pressed = self._chip_at(event.position().toPoint())
        self.resizing = self._pressed < 0
        if self._pressed < 0:
            super().mousePressEvent(event)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        at = event.position().toPoint()
        if self._pressed < 0:
            chip = self._chip_at(at)
            self.setToolTip(self._explained(chip))
            super().mouseMoveEvent(event)
            return
        over = self.logicalIndexAt(at)
        role = self.role_of(self._pressed)
        if over != self._pressed and role and not self.is_helper(self._pressed):
            self._dragged = role
        if over != self._over:
            self._over = over
            self.viewport().update()

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        pressed, dragged = self._pressed, self._dragged
        self._pressed, self._dragged, self._over, self.resizing = -1, None, -1, False
        self.viewport().update()
        if pressed < 0:
            super().mouseReleaseEvent(event)
            return
        over = self.logicalIndexAt(event.position().toPoint())
        if dragged is not None and over >= 0:
            self.give(dragged, over)
        elif over == pressed:
            corner = self.chip_rect(pressed).bottomLeft()
            self.role_menu(pressed).popup(self.viewport().mapToGlobal(corner))

    def _explained(self, section: int) -> str:
        recipe, column = self._store.recipe, self._store.table.column(section)
        if recipe is None or column is None:
            return ""
        helper = column.helper
        if helper is not None:
            return next(
                (words(one.meaning) for one in (GUARD, *recipe.helpers) if helper.name.startswith(one.name)), ""
            )
        text = self.role_of(section)
        return words(next((one.meaning for one in recipe.roles if one.name == text), "Choose what this column is for"))

    def role_menu(self, section: int) -> QMenu:
        """The menu of a column's chip: the recipe's roles, and none."""
        menu = QMenu(self)
        menu.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        if not self._store.chart_is_of_table or self.is_helper(section):
            note = QAction(self._explained(section) or words("No role"), menu)
            note.setEnabled(False)
            menu.addAction(note)
            return menu
        held = self.role_of(section)
        recipe = self._store.recipe
        for role in recipe.roles if recipe is not None else ():
            action = QAction(f"{named(role.name)}  –  {words(role.meaning)}", menu)
            action.setCheckable(True)
            action.setChecked(role.name == held)
            action.triggered.connect(lambda _checked=False, name=role.name: self.give(name, section))
            menu.addAction(action)
        menu.addSeparator()
        nothing = QAction(words("No role"), menu)
        nothing.setCheckable(True)
        nothing.setChecked(not held)
        nothing.triggered.connect(lambda: self._take(held, section))
        menu.addAction(nothing)
        return menu

    def give(self, role: str, section: int) -> None:
        """Give a column a role."""
        column = self._store.table.column(section)
        if column is not None and column.helper is None:
            self._store.edit_chart(
                say("make column the {what}", what=named(role)),
                lambda document, chart: edits.set_role(document, chart.id, role, column.id),
            )

    def _take(self, role: str, section: int) -> None:
        column = self._store.table.column(section)
        if role and column is not None:
            self._store.edit_chart(
                say("take role {what}", what=named(role)),
                lambda document, chart: edits.drop_role(document, chart.id, column.id),
            )
