"""What a check declares: its name, what it looks at, and where its threshold comes from."""

from collections.abc import Callable, Iterable

from msgspec import Struct

from kavlet.core.proof.finding import Finding
from kavlet.core.proof.subjects import DrawnChart, DrawnPage, Papers

Found = Iterable[Finding]


class Check(Struct, frozen=True):
    """One check. `says` is what it objects to, in a few words; `source` where its threshold comes from.

    `of_chart` is asked once for a chart, `of_drawing` wherever it is drawn (by itself, and in each frame on a page),
    `of_page` for a page, `of_papers` for the whole document.
    """

    name: str
    says: str
    source: str
    of_chart: Callable[[DrawnChart], Found] | None = None
    of_drawing: Callable[[DrawnChart], Found] | None = None
    of_page: Callable[[DrawnPage], Found] | None = None
    of_papers: Callable[[Papers], Found] | None = None
