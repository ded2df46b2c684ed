"""From a figure to a scene: marks, then texts, as a flat list of primitives."""

from kavlet.core.compose.figure import Figure
from kavlet.core.scene.primitives import MarkId, Primitive, Scene, Shape, Writing


def draw(figure: Figure) -> Scene:
    """The primitives of all visible marks and all texts. Helpers leave no trace."""
    items: list[Primitive] = [
        Shape(mark.path, mark.fill, mark=MarkId(mark.layer, mark.row), title=mark.says)
        for mark in figure.marks
        if mark.visible and mark.path is not None
    ]
    items += [
        Writing(
            text.text, text.x, text.y, text.width, text.face, text.size, text.colour,
            MarkId(text.layer, text.row) if text.layer and text.row is not None else None,
        )
        for text in figure.texts
    ]  # fmt: skip
    return Scene(figure.size, figure.ground, tuple(items), figure.title, figure.alt_text)
