"""Looks: colour texts, palettes, themes, values set by hand, kits, own pictures."""

import io
import itertools
import time
from pathlib import Path

import msgspec
import pytest
from PIL import Image

from kavlet.core.charts.bars import Bars
from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.overrides import checked, held, overridden
from kavlet.core.charts.reference import Reference
from kavlet.core.charts.scale import Scale
from kavlet.core.document import edits
from kavlet.core.document.document import Document
from kavlet.core.document.looks import look_edits
from kavlet.core.files import kavlet as kavlet_file
from kavlet.core.files import kit as kit_file
from kavlet.core.files import pictures, svg
from kavlet.core.files.palette import from_gpl
from kavlet.core.pipeline.stages import picture
from kavlet.core.scene.primitives import Group
from kavlet.core.spreadsheet.recalculate import recalculate
from kavlet.core.styling.measures import Spaces
from kavlet.core.styling.palettes import from_text, palettes
from kavlet.core.styling.style import Dress, resolve
from kavlet.core.styling.theme import themes
from kavlet.core.values.colour import colour, contrast, oklab
from kavlet.core.values.errors import KavletError
from kavlet.core.values.lengths import size
from kavlet.core.values.vision import as_seen, difference
from tests.making import document, draw, free, marks, table

ROWS = table(["name", "n"], ["a", "b", "c"], [3, 7, 5])


def test_colour_texts() -> None:
    style = resolve(Dress())
    assert style.colour("#7a2e5d").hex == "#7a2e5d"
    assert style.colour("tone2") == style.palette[1]
    assert style.colour("ink") == style.ink
    assert style.colour("tone1 +100").hex == style.ground.hex
    assert oklab(style.colour("tone1 +50"))[0] == pytest.approx(
        (oklab(style.palette[0])[0] + oklab(style.ground)[0]) / 2, abs=0.01
    )
    assert style.colour("white /40").alpha == 0.4
    for text in ("plum", "tone", "#12", "", "ink2"):
        with pytest.raises(KavletError):
            style.colour(text)


def test_tints_step_evenly_in_lightness() -> None:
    style = resolve(Dress())
    steps = [oklab(style.colour(f"tone1 +{share}"))[0] for share in (0, 20, 40, 60)]
    gaps = [b - a for a, b in itertools.pairwise(steps)]
    assert gaps == [pytest.approx(gaps[0], abs=0.01)] * 3


def test_palettes_from_any_text_and_from_gpl() -> None:
    text = "brand: #7A2E5D, --teal:#0e7c86;  also 0e7c86aa? #abc and 123456 or deadly"
    assert from_text(text) == ("#7a2e5d", "#0e7c86", "#aabbcc")
    gpl = from_gpl("GIMP Palette\nName: House\nColumns: 2\n# ours\n122  46  93 plum\n14 124 134\n999 0 0 no\n")
    assert (gpl.title, gpl.colours) == ("House", ("#7a2e5d", "#0e7c86"))
    for rotten in ("", "nothing here", "GIMP Palette\nName: x\n"):
        with pytest.raises(KavletError):
            from_gpl(rotten)
    with pytest.raises(KavletError):
        from_text("no colours, 123456")


def test_a_text_of_many_colours_is_read_at_once() -> None:
    text = " ".join(f"#{number:06x}" for number in range(200_000))
    start = time.process_time()
    assert len(from_text(text)) == 64
    assert len(from_text("#aabbcc " * 200_000)) == 1
    assert time.process_time() - start < 2.0


def test_there_are_palettes_of_each_kind() -> None:
    assert {one.kind for one in palettes().values()} == {"qualitative", "sequential", "diverging"}
    for one in palettes().values():
        if one.kind == "sequential":
            lightness = [oklab(colour(text))[0] for text in one.colours]
            assert lightness == sorted(lightness, reverse=True)


# Okabe and Ito's set and the theme's first colours stay apart for readers who lack a kind of cone.
@pytest.mark.parametrize("by", ["protan", "deutan", "tritan"])
def test_palettes_for_colour_blind_readers(by: str) -> None:
    clear = [colour(text) for text in palettes()["clear"].colours]
    gaps = [difference(as_seen(a, by), as_seen(b, by)) for i, a in enumerate(clear) for b in clear[i + 1 :]]  # type: ignore[arg-type]
    assert min(gaps) > 5
    for theme in themes().values():
        first, second = (colour(text) for text in theme.light.palette[:2])
        assert difference(as_seen(first, by), as_seen(second, by)) > 10  # type: ignore[arg-type]


@pytest.mark.parametrize("name", list(themes()))
@pytest.mark.parametrize("dark", [False, True])
def test_every_theme_is_readable(name: str, dark: bool) -> None:
    style = resolve(Dress(theme=name, dark=dark))
    assert contrast(style.ink, style.ground) >= 7
    assert contrast(style.quiet, style.ground) >= 4.5
    assert all(contrast(tone, style.ground) >= 3 for tone in style.palette)
    for tone in style.palette:
        assert contrast(style.on(tone), tone) >= 4.5
    if name == "beacon":
        assert all(contrast(tone, style.ground) >= 7 for tone in style.palette)
    if name == "graphite":
        assert all(tone.red == tone.green == tone.blue for tone in style.palette)


def test_at_least_six_themes_light_and_dark() -> None:
    assert len(themes()) >= 6
    assert all(resolve(Dress(theme=name, dark=True)).ground != resolve(Dress(theme=name)).ground for name in themes())
    with pytest.raises(KavletError, match="no theme"):
        resolve(Dress(theme="none"))


SPEC = Chart(Cartesian(), (Bars("value", "n", "c2"), Bars("other", "m", "c3")))


def test_values_by_hand_stand_at_their_path() -> None:
    made = overridden(
        SPEC,
        {
            "layers.value.fill": "#123456", "layers.value.rows.2.explode": 0.2, "layers.value.label.size": 14,
            "frame.along.maximum": 5, "title.size": 30, "layers.order": ["other", "value"],
            "layers.gone.fill": "#111111", "frame.hole": 0.5, "layers.value.tone": "not a number",
        },
    )  # fmt: skip
    assert [layer.key for layer in made.layers] == ["other", "value"]
    value = made.layers[1]
    assert (value.fill, value.rows[2].explode, value.label.size, value.tone) == ("#123456", 0.2, 14, 0)  # type: ignore[union-attr]
    assert (made.frame.along.maximum, made.title.size) == (5, 30)  # type: ignore[union-attr]
    assert held(made, "layers.value.rows.2.explode") == 0.2
    assert held(made, "layers.none.fill") is None
    with pytest.raises(KavletError):
        checked(SPEC, "layers.value.tone", "not a number")


def test_an_override_survives_a_change_of_theme_and_is_given_back() -> None:
    made = document("columns", ROWS)
    look = {"layers.series 1.fill": "#0a6847"}
    for theme in ("reedbed", "harbour"):
        drawn = draw(made, look=look, dress=Dress(theme=theme))
        assert {mark.fill.hex for mark in marks(drawn, "series 1")} == {"#0a6847"}
    assert marks(draw(made, dress=Dress(theme="harbour")), "series 1")[0].fill == resolve(Dress("harbour")).palette[0]


def test_looks_of_single_rows_follow_their_rows() -> None:
    made = document("columns", ROWS)
    entry = made.charts[0]
    dress = msgspec.structs.replace(entry.dress, overrides={"layers.series 1.rows.1.fill": "#0a6847"})
    made = edits.change_chart(made, entry.id, dress=dress)
    inserted = edits.insert_rows(made, "t1", 1)
    assert inserted.charts[0].dress.overrides == {"layers.series 1.rows.2.fill": "#0a6847"}
    deleted = edits.delete_rows(made, "t1", 2)
    assert deleted.charts[0].dress.overrides == {}


def test_rules_fill_the_rows_they_pick() -> None:
    rules = [{"when": "largest", "fill": "#111111"}, {"when": "below", "than": 4, "fill": "#222222"}]
    drawn = draw(document("columns", ROWS), look={"layers.series 1.rules": rules})
    assert [mark.fill.hex for mark in marks(drawn, "series 1")] == [
        "#222222",
        "#111111",
        resolve(Dress()).palette[0].hex,
    ]


def test_ink_goes_from_bare_to_fully_ruled() -> None:
    made = document("columns", ROWS)
    bare = {"frame.along.visible": None, "frame.along.grid": None, "frame.across.line": None}
    counts = []
    for ink in range(4):
        figure = draw(made, look={**bare, "ink": ink, "frame.along.minor": 2}).figure
        counts.append((len(figure.under) + len(figure.over), sum(text.kind == "tick" for text in figure.texts)))
    assert counts[0] == (0, 0)
    assert [lines for lines, _ in counts] == sorted({lines for lines, _ in counts})
    assert all(ticks for _, ticks in counts[1:])


def png(width: int = 4, height: int = 3) -> bytes:
    buffer = io.BytesIO()
    Image.new("RGB", (width, height), "#7a2e5d").save(buffer, "PNG")
    return buffer.getvalue()


SVG = b'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9"><script>x</script><g transform="translate(2 1)">'
SVG += b'<rect width="4" height="2"/><circle cx="9" cy="1" r="1"/></g></svg>'


def test_own_symbols_and_pictures_fill_and_are_saved(tmp_path: Path) -> None:
    (tmp_path / "house mark.svg").write_bytes(SVG)
    (tmp_path / "photo.png").write_bytes(png())
    symbol, photo = (pictures.load(tmp_path / name).picture for name in ("house mark.svg", "photo.png"))
    assert (symbol.name, photo.width, photo.height) == ("house mark", 4, 3)
    made = msgspec.structs.replace(document("picture-bars", ROWS, symbol="photo"), pictures=(symbol, photo))
    bar = marks(draw(made), "value")[0]
    assert any(getattr(item, "content", b"") == photo.content for item in bar.items)
    again = kavlet_file.loads(kavlet_file.dumps(made), "x")
    assert again == made


@pytest.mark.parametrize(
    ("name", "content"),
    [
        ("a.svg", b"<svg><path d='M0 0"), ("b.svg", b"<!DOCTYPE svg [<!ENTITY a 'b'>]><svg>&a;</svg>"),
        ("c.svg", b"<svg xmlns='http://www.w3.org/2000/svg'><text>x</text></svg>"), ("d.png", png()[:40]),
        ("e.txt", b"hello"),
        ("f.svg", b"<svg xmlns='http://www.w3.org/2000/svg'>" + b"<g>" * 500 + b"</g>" * 500 + b"</svg>"),
        ("g.png", png().replace(b"\x00\x00\x00\x04\x00\x00\x00\x03", b"\x00\x00\xea\x60\x00\x00\xea\x60")),
        ("h.svg", b"<svg xmlns='http://www.w3.org/2000/svg'><path d='M0 0 nonsense'/></svg>"),
    ],
)  # fmt: skip
def test_rotten_pictures_are_refused_in_one_sentence(name: str, content: bytes) -> None:
    with pytest.raises(KavletError) as refused:
        pictures.loads(content, name)
    assert str(refused.value).startswith(name)


def test_a_kit_holds_a_house_style() -> None:
    made = document("columns", ROWS)
    entry = made.charts[0]
    own = msgspec.structs.replace(themes()["clay"], name="house", title="House")
    dress = Dress(theme="house", family="serif", overrides={"layers.series 1.fill": "tone2"})
    made = msgspec.structs.replace(edits.change_chart(made, entry.id, dress=dress), theme=own)
    kit = kit_file.loads(kit_file.dumps(kit_file.taken_from(made, entry.id, "House")), "house")
    worn = kit_file.put_on(document("columns", ROWS), kit)
    assert worn.charts[0].dress == dress
    assert marks(draw(worn), "series 1")[0].fill == colour(own.light.palette[1])
    for rotten in (b"", b"{}x", b'{"format": "other"}', b'{"version": 9}', b'{"dress": {"theme": "none"}}'):
        with pytest.raises(KavletError):
            kit_file.loads(rotten, "kit")


def test_sizes_have_names() -> None:
    assert size("M").width == pytest.approx(120 * 72 / 25.4)
    assert size("A4 lying").width == pytest.approx(841.89, abs=0.01)
    assert size("Page width").width == pytest.approx(160 * 72 / 25.4)
    with pytest.raises(KavletError):
        size("enormous")


FLAG = b"""<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 20 10"><title>Flag</title><g fill="none" stroke="#333">
<rect width="10" height="10" fill="#d03030"/><path d="M0 0H20"/></g><rect x="10" width="10" height="10"
style="fill: navy"/><text x="1" y="1">x</text><rect x="4" y="4" width="2" height="2" fill="url(#g)"/></svg>"""


def test_a_symbol_keeps_the_colours_of_its_file_by_choice() -> None:
    loaded = pictures.loads(FLAG, "flag.svg")
    assert loaded.left_out == ("stroke", "text", "gradient")
    flag = loaded.picture
    assert [colour for _, colour in flag.parts] == ["#d03030", "#000080", "#000000"]
    assert flag.own_colours
    made = msgspec.structs.replace(document("picture-bars", ROWS, symbol="flag"), pictures=(flag,))

    def drawn(of: Document) -> list[str]:
        bar = marks(draw(of), "value")[0]
        group = next((item for item in bar.items if isinstance(item, Group)), None)
        return [one.fill.hex for one in group.items] if group is not None else []

    assert drawn(made) == ["#d03030", "#000080", "#000000"]
    assert drawn(look_edits.with_own_colours(made, "flag", False)) == []
    assert "#d03030" in svg.dumps(draw(made).scene)
    assert kavlet_file.loads(kavlet_file.dumps(made), "x") == made


def test_a_symbol_of_one_colour_takes_the_chart_s() -> None:
    loaded = pictures.loads(SVG, "plain.svg")
    assert loaded.left_out == ()
    assert not loaded.picture.own_colours
    assert loaded.picture.parts == ()


def test_a_palette_serves_the_document() -> None:
    made = document("columns", ROWS)
    made, other = edits.add_chart(made, "t1", "columns")
    entry = made.charts[0]
    own = ("#102030", "#405060")
    made = edits.change_chart(made, entry.id, dress=msgspec.structs.replace(entry.dress, palette=own))
    made = look_edits.with_common_palette(made, entry.id, True)
    for chart in (entry.id, other):
        shown = picture(made, recalculate(made.tables), chart)
        assert shown.figure.marks[0].fill is not None
        assert shown.figure.marks[0].fill.hex == "#102030"
    back = look_edits.with_common_palette(made, entry.id, False)
    assert back.palette is None
    assert back.charts[0].dress.palette == own
    assert kavlet_file.loads(kavlet_file.dumps(made), "x") == made


def test_a_line_stands_where_it_is_set_and_else_at_its_column() -> None:
    rows = table(["n", "v", "goal"], ["a", "b"], [10, 20], [15, 15])
    layers = (Bars("v", "v", "c2"), Reference("r", "goal", "c3"))
    chart = Chart(Cartesian(along=Scale(minimum=0.0, maximum=30.0)), layers, names="c1")
    assert free(chart, rows).figure.marks[-1].value == 15
    moved = free(chart, rows, dress=Dress(overrides={"layers.r.at": 25.0}))
    assert moved.figure.marks[-1].value == 25
    bound = free(chart, rows, dress=Dress(overrides={"layers.r.at": "=B3+1"}))
    assert bound.figure.marks[-1].value == 21


def test_palettes_of_the_document_have_names_and_go_along_in_kits() -> None:
    made = document("columns", ROWS)
    chart = made.charts[0]
    blues = ("#003f7d", "#7fa8d0")
    made = edits.change_chart(made, chart.id, dress=msgspec.structs.replace(chart.dress, palette=blues))
    named = look_edits.with_named_palette(made, chart.id, "Our blues")
    assert [(one.name, one.colours) for one in named.palettes] == [("Our blues", blues)]
    assert named.charts[0].dress.palette == "Our blues"
    assert resolve(named.charts[0].dress, named.house).palette[0].hex == blues[0]
    common = look_edits.with_common_palette(named, chart.id, True)
    assert common.palette == "Our blues"
    assert resolve(Dress(), common.house).palette[1].hex == blues[1]
    kept = kit_file.loads(kit_file.dumps(kit_file.taken_from(named, chart.id, "house")), "house")
    put = kit_file.put_on(document("columns", ROWS), kept)
    assert resolve(put.charts[0].dress, put.house).palette[0].hex == blues[0]
    for left in (look_edits.without_palette(named, "Our blues"), look_edits.without_palette(common, "Our blues")):
        assert not left.palettes
        assert resolve(left.charts[0].dress, left.house).palette[0].hex == blues[0]
    with pytest.raises(KavletError, match="Our blues"):
        resolve(Dress(palette="Our blues"))
    assert kavlet_file.loads(kavlet_file.dumps(named), "a") == named


def test_a_theme_decides_weights_and_spaces() -> None:
    look = {"ink": 3}
    plain, strong = (
        draw(document("columns", ROWS), look=look, dress=Dress(theme=name)) for name in ("reedbed", "beacon")
    )
    for kind, field in (("grid", "hair"), ("axis", "axis")):
        for drawn, name in ((plain, "reedbed"), (strong, "beacon")):
            rules = [*drawn.figure.under, *drawn.figure.over]
            assert {one.width for one in rules if one.kind == kind and one.y1 == one.y2} == {
                getattr(themes()[name].strokes, field)
            }
    assert themes()["beacon"].strokes.axis > themes()["reedbed"].strokes.axis
    wide = msgspec.structs.replace(themes()["reedbed"], spaces=Spaces(margin=0.12, most=60.0))
    made = document("columns", ROWS)
    roomy = draw(msgspec.structs.replace(made, theme=wide))
    assert roomy.figure.plot.width < draw(made).figure.plot.width - 20
