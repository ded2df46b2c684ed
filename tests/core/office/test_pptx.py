"""Slides read back: what stands over what, and where lines begin and end."""

import io
from typing import Any

import pytest
from pptx import Presentation
from pptx.util import Pt

from kavlet.core.office.pptx import presentation
from kavlet.core.office.writing_options import WritingOptions
from kavlet.core.office_model.page_model import PageModel, ShapePart
from kavlet.core.pages.items.drawn_shape import DrawnShape, line_ends
from kavlet.core.values.colour import Colour
from kavlet.core.values.geometry import Rect, Size

BLACK, WHITE = Colour(0.0, 0.0, 0.0), Colour(1.0, 1.0, 1.0)


def shape(name: str, x: float, group: str = "", form: Any = "rectangle", **changes: Any) -> ShapePart:
    return ShapePart(box=Rect(x, 20.0, 60.0, 40.0), name=name, group=group, form=form, fill=BLACK, edge=BLACK,
                     edge_width=1.0, **changes)  # fmt: skip


def slide(*parts: ShapePart) -> Any:
    page = PageModel(name="page", size=Size(720.0, 405.0), ground=WHITE, parts=parts)
    content = presentation([page], [], WritingOptions(lambda scene, scale: b""))  # noqa: ARG005
    return Presentation(io.BytesIO(content)).slides[0]


def test_a_group_stands_among_the_others_where_its_topmost_part_stands() -> None:
    shapes = slide(shape("a", 0, "g"), shape("under", 40), shape("b", 80, "g"), shape("over", 120)).shapes
    assert [one.name for one in shapes] == ["under", "Group", "over"]
    assert [one.name for one in shapes[1].shapes] == ["a", "b"]


def test_two_groups_keep_their_order() -> None:
    shapes = slide(shape("a", 0, "g"), shape("b", 40, "g"), shape("c", 80, "h"), shape("d", 120, "h")).shapes
    assert [[one.name for one in group.shapes] for group in shapes] == [["a", "b"], ["c", "d"]]


@pytest.mark.parametrize(
    ("box", "rising", "ends"),
    [
        (Rect(10.0, 20.0, 200.0, 100.0), False, ((10.0, 20.0), (210.0, 120.0))),
        (Rect(10.0, 20.0, 200.0, 100.0), True, ((10.0, 120.0), (210.0, 20.0))),
        (Rect(10.0, 20.0, 200.0, 5.0), True, ((10.0, 22.5), (210.0, 22.5))),
        (Rect(10.0, 20.0, 5.0, 200.0), False, ((12.5, 20.0), (12.5, 220.0))),
    ],
)
def test_lines_run_there_as_they_are_drawn(box: Rect, rising: bool, ends: Any) -> None:
    """A line in a thin box is level or upright, on the page and in the file."""
    item = DrawnShape("i1", form="line", rising=rising)
    assert line_ends(item, box) == ends
    (line,) = slide(shape("line", 0.0, form="line", line=ends)).shapes
    assert [line.begin_x, line.begin_y, line.end_x, line.end_y] == [Pt(value) for end in ends for value in end]
