"""HTML files in Chromium, driven by its remote protocol: no complaint, no request, keys, grounds, what is told to
assistive technology, and the same picture as here."""

import io
from collections.abc import Iterator
from pathlib import Path

import numpy as np
import pytest
from PIL import Image

from kavlet.core.document.document import Document
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.files.formats import ExportOptions
from kavlet.desktop.main import application
from kavlet.export.outgoing import Export
from kavlet.export.ways import written
from kavlet.paint.picture import png
from tests.paint.browser import CHROMIUM, Browser

DEMO = Path(__file__).parents[2] / "src" / "kavlet" / "assets" / "demo" / "mirefen.kavlet"
pytestmark = pytest.mark.skipif(CHROMIUM is None, reason="Chromium is not installed")


@pytest.fixture(scope="module")
def demo() -> Document:
    application()
    return kavlet_file.load(DEMO)


@pytest.fixture(scope="module")
def browser() -> Iterator[Browser]:
    made = Browser()
    yield made
    made.close()


def shown(browser: Browser, what: Export, tmp_path: Path) -> None:
    path = tmp_path / "page.html"
    path.write_bytes(written(what, ExportOptions(".html")).content)
    browser.requests.clear()
    browser.complaints.clear()
    browser.open(path)


@pytest.mark.parametrize("chart", ["k1", "k3", "k4", "k11", "k18", "k21", "k27"])
def test_a_chart_looks_as_it_does_here(browser: Browser, demo: Document, tmp_path: Path, chart: str) -> None:
    what = Export(demo, (chart,), title="Chart")
    shown(browser, what, tmp_path)
    browser.run("document.querySelector('.light svg').style.width = '640px'")
    there = Image.open(io.BytesIO(browser.shot(".light svg"))).convert("RGB")
    scene = what.scenes[0]
    here = Image.open(io.BytesIO(png(scene, 640 / scene.size.width))).convert("RGB").resize(there.size)
    difference = np.abs(np.asarray(there, dtype=float) - np.asarray(here, dtype=float)).mean(axis=2)
    assert difference.mean() < 2.0  # of 255; edges are smoothed otherwise
    assert (difference > 96).mean() < 0.01


def test_nothing_is_asked_for_and_nothing_complained_of(browser: Browser, demo: Document, tmp_path: Path) -> None:
    shown(browser, Export(demo, pages=tuple(page.id for page in demo.pages), title="Pages"), tmp_path)
    assert [url for url in browser.requests if not url.startswith(("file:", "data:"))] == []
    assert browser.complaints == []


def test_the_policy_holds_back_what_is_not_its_own(browser: Browser, demo: Document, tmp_path: Path) -> None:
    shown(browser, Export(demo, ("k1",), title="Chart"), tmp_path)
    browser.run(
        "(() => { const s = document.createElement('script'); s.textContent = 'window.strange = 1';"
        "const i = new Image(); i.src = 'http://127.0.0.1:9/x.png'; document.body.append(s, i) })()"
    )
    assert browser.run("window.strange === undefined")
    assert any("Content Security Policy" in one or "violates" in one for one in browser.complaints)


def step(browser: Browser) -> tuple[str, int]:
    return (
        browser.run("document.querySelector('output').textContent"),
        browser.run("[...document.querySelectorAll('.step')].findIndex(one => one.classList.contains('now'))"),
    )


def test_steps_are_gone_through_by_keys_buttons_and_slider(browser: Browser, demo: Document, tmp_path: Path) -> None:
    what = Export(demo, ("k16",), title="Counts")
    names = what.periods(0)
    shown(browser, what, tmp_path)
    assert step(browser) == (names[0], 0)
    browser.run("document.querySelector('figure').focus()")
    browser.press("ArrowRight")
    assert step(browser) == (names[1], 1)
    browser.press("End")
    assert step(browser) == (names[-1], len(names) - 1)
    browser.press("ArrowRight")  # nothing beyond the last
    assert step(browser) == (names[-1], len(names) - 1)
    browser.press("Home")
    browser.run("document.querySelector('.after').click()")
    assert step(browser) == (names[1], 1)
    browser.run("document.querySelector('input').focus()")
    browser.press("ArrowRight")
    assert step(browser) == (names[2], 2)
    shown_now = browser.run("getComputedStyle(document.querySelectorAll('.step')[2]).display")
    assert shown_now == "block"
    assert browser.complaints == []


def test_the_ground_is_the_readers_choice(browser: Browser, demo: Document, tmp_path: Path) -> None:
    shown(browser, Export(demo, ("k1",), title="Chart"), tmp_path)

    def seen() -> str:
        return str(browser.run("getComputedStyle(document.querySelector('.dark')).display"))

    assert seen() == "none"
    browser.run("document.getElementById('ground').focus()")
    browser.press("Enter")
    browser.run("document.getElementById('ground').click()") if seen() == "none" else None
    assert seen() == "block"
    assert browser.run("document.getElementById('ground').getAttribute('aria-pressed')") == "true"
    browser.call("Emulation.setEmulatedMedia", features=[{"name": "prefers-color-scheme", "value": "dark"}])
    shown(browser, Export(demo, ("k1",), title="Chart"), tmp_path)
    assert seen() == "block"
    browser.call("Emulation.setEmulatedMedia", media="print", features=[])
    assert seen() == "none"
    browser.call("Emulation.setEmulatedMedia", media="", features=[])


def test_assistive_technology_is_told_the_picture_and_its_figures(browser: Browser, demo: Document,
                                                                  tmp_path: Path) -> None:  # fmt: skip
    what = Export(demo, ("k1",), title="Chart")
    shown(browser, what, tmp_path)
    browser.run("document.querySelector('details').open = true")
    nodes = browser.tree()
    roles = {node["role"]["value"] for node in nodes if "role" in node}
    names = [node.get("name", {}).get("value", "") for node in nodes]
    assert {"table", "columnheader", "rowheader", "cell"} <= roles
    assert "18,400" in names
    pictures = [node for node in nodes if node.get("role", {}).get("value") == "image"]
    assert any(what.scenes[0].title in node["name"]["value"] for node in pictures)


def test_every_page_is_as_wide_as_the_window_at_most(browser: Browser, demo: Document, tmp_path: Path) -> None:
    shown(browser, Export(demo, pages=tuple(page.id for page in demo.pages), title="Pages"), tmp_path)
    for width in (360, 1100):
        browser.call("Emulation.setDeviceMetricsOverride", width=width, height=800, deviceScaleFactor=1, mobile=False)
        assert browser.run("document.documentElement.scrollWidth") <= width
