"""What a check declares: its name, what it looks at, and where its threshold comes from."""

from collections.abc import Callable, Iterable

from msgspec import Struct

from kavlet.core.proof.finding import Finding
from kavlet.core.proof.subjects import ChartSubject, DocumentSubject, PageSubject

Found = Iterable[Finding]


class Check(Struct, frozen=True):
    """One check. `says` is what it objects to, in a few words; `source` where its threshold comes from.

    `of_chart` is asked once for a chart, `of_drawing` wherever it is drawn (by itself, and in each frame on a page),
    `of_page` for a page, `of_papers` for the whole document.
    """

    name: str
    says: str
    source: str
    of_chart: Callable[[ChartSubject], Found] | None = None
    of_drawing: Callable[[ChartSubject], Found] | None = None
    of_page: Callable[[PageSubject], Found] | None = None
    of_papers: Callable[[DocumentSubject], Found] | None = None
