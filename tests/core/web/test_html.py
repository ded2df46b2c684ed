"""The HTML file: what it holds, and that it asks for nothing."""

import base64
import hashlib
import re
from html.parser import HTMLParser

import pytest

from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.files.formats import ExportOptions
from kavlet.core.office_model.figure_table import figures_of
from kavlet.core.web.html import SCRIPT, WebPage, WebStep, dumps
from kavlet.export.documents import html_page
from kavlet.export.outgoing import Export
from tests.office import made

ROWS = [["stage", "people"], ["Gate & <co>", 1400.0], ["Hide", 240.0]]


def document(title: str = "") -> tuple[Document, str]:
    held, table = edits.add_table(Document(), "Counts", [list(row) for row in ROWS])
    held, chart = edits.add_chart(held, table, "bars", {"name": ("c1",), "value": ("c2",)})
    return edits.change_chart(held, chart, title=title), chart


@pytest.fixture
def text() -> str:
    held, chart = document("A </script><script>alert(1)</script> title")
    return html_page(Export(held, (chart,), title="Gates"), ExportOptions(".html")).content.decode()


class _Parsed(HTMLParser):
    def __init__(self) -> None:
        super().__init__()
        self.tags: list[tuple[str, dict[str, str | None]]] = []
        self.open: list[str] = []

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        self.tags.append((tag, dict(attrs)))


def parsed(text: str) -> _Parsed:
    made_ = _Parsed()
    made_.feed(text)
    return made_


def test_nothing_is_asked_for_from_elsewhere(text: str) -> None:
    for tag, attributes in parsed(text).tags:
        for name in ("src", "href", "action", "data", "poster", "srcset"):
            value = attributes.get(name) or ""
            assert not value or value.startswith(("data:", "#")), (tag, name, value[:40])
    assert not re.search(r"url\((?![\"']?data:)", text)
    assert "@import" not in text


def test_the_policy_allows_its_own_script_and_style_alone(text: str) -> None:
    policy = next(one for _, one in parsed(text).tags if one.get("http-equiv") == "Content-Security-Policy")["content"]
    assert policy is not None
    assert policy.startswith("default-src 'none'")
    script = re.search(r"<script>(.*?)</script>\n</body>", text, re.S)
    style = re.search(r"<style>(.*?)</style>\n</head>", text, re.S)
    assert script is not None
    assert style is not None
    assert script[1] == SCRIPT
    for content in (script[1], style[1]):
        digest = base64.b64encode(hashlib.sha256(content.encode()).digest()).decode()
        assert f"'sha256-{digest}'" in policy


def test_texts_of_the_table_never_become_markup(text: str) -> None:
    assert "alert(1)" in text
    assert text.count("<script") == 1
    assert "Gate &amp; &lt;co&gt;" in text


def test_figures_are_a_table_with_heads(text: str) -> None:
    tags = parsed(text).tags
    assert [one.get("scope") for tag, one in tags if tag == "th"] == ["col", "col", "row", "row"]
    assert "1,400" in text


def test_both_grounds_are_there(text: str) -> None:
    assert text.count('<div class="light">') == text.count('<div class="dark">') == 1
    assert "prefers-color-scheme: dark" in text


def test_faces_are_embedded_once(text: str) -> None:
    families = re.findall(r"@font-face\{font-family:\"([^\"]+)\";font-weight:(\d+)", text)
    assert len(families) == len(set(families)) > 0


def test_steps_are_all_there_and_named() -> None:
    held, chart = document()
    one = made(held, chart)
    scene = one.picture.scene
    sheet = WebPage("Counts", (WebStep("March", scene, scene), WebStep("April", scene, scene)), figures_of(one.picture))
    text = dumps([sheet], "Counts", "de")
    assert text.count('class="step') == 3  # two steps and the control
    assert 'data-steps="[&quot;March&quot;,&quot;April&quot;]"' in text
    assert 'lang="de"' in text
    assert "Einen Schritt zurück" in text
    assert text == dumps([sheet], "Counts", "de")
