"""One owner for each setting: whichever field is touched last has its effect, and nothing is kept twice."""

from importlib.resources import files
from typing import Any

import msgspec
import pytest

from kavlet.core.document import edits
from kavlet.core.document.charts.recipe_lookup import recipes_of
from kavlet.core.document.document import Document
from kavlet.core.document.looks import look_edits
from kavlet.core.document.looks.setting_owner import looks_of, setting_of
from kavlet.core.files import kavlet
from kavlet.core.interaction.offers import offers
from kavlet.core.interaction.parts import Part
from kavlet.core.pipeline.stages import build_chart
from kavlet.core.recipes.recipe import Setting
from kavlet.core.recipes.registry import RECIPES
from kavlet.core.values.errors import KavletError
from tests.making import table, values_of

ROWS = table(["pond", "visits"], ["Mere", "Carr", "Dyke"], [40.0, 25.0, 12.0])


def of(recipe: str, **settings: Setting) -> Document:
    document, tables = edits.add_table(Document(), "Ponds", ROWS)
    document, _ = edits.add_chart(document, tables, recipe)
    for name, value in settings.items():
        document = look_edits.set_setting(document, "k1", name, value)
    return document


def spec(document: Document) -> Any:
    return build_chart(document, values_of(document), "k1").chart


def test_a_look_that_a_setting_owns_sets_the_setting() -> None:
    document = look_edits.set_looks(of("pie", hole=40.0), "k1", {"frame.hole": 0.6})
    chart = document.chart("k1")
    assert chart.settings == {"hole": 60.0}
    assert chart.dress.overrides == {}
    document = look_edits.set_setting(document, "k1", "hole", 25.0)
    assert spec(document).frame.hole == 0.25


@pytest.mark.parametrize(
    ("recipe", "path", "value", "name", "setting"),
    [
        ("columns", "frame.gap_width", 120.0, "gap", 120.0),
        ("columns", "frame.overlap", -20.0, "overlap", -20.0),
        ("columns", "frame.along.maximum", 90.0, "maximum", 90.0),
        ("highlight-bars", "frame.lying", True, "direction", "lying"),
        ("stacked-bars", "frame.lying", False, "direction", "standing"),
        ("radial-bars", "frame.ring_gap", 9.0, "gap", 9.0),
        ("pie", "frame.start", 30.0, "start", 30.0),
        ("pie", "layers.value.explode", 0.07, "explode", 7.0),
        ("waffle", "layers.cells.gap", 0.3, "gap", 30.0),
        ("points", "layers.value.spot", "cross", "spot", "cross"),
    ],
)
def test_owners(recipe: str, path: str, value: Any, name: str, setting: Setting) -> None:
    document = look_edits.set_looks(of(recipe), "k1", {path: value})
    assert document.chart("k1").settings == {name: setting}
    assert looks_of(document, document.chart("k1")) == {path: pytest.approx(value)}
    back = look_edits.give_back(document, "k1", [path])
    assert not back.chart("k1").settings
    assert not look_edits.give_all_back(document, "k1").chart("k1").settings


def test_a_value_the_setting_cannot_have_is_refused_and_a_gesture_stops_at_its_end() -> None:
    document = of("columns")
    with pytest.raises(KavletError, match="gap can’t be 900"):
        look_edits.set_looks(document, "k1", {"frame.gap_width": 900.0})
    assert look_edits.limited(document, "k1", {"frame.gap_width": 900.0}) == {"frame.gap_width": 500.0}


def test_a_document_with_both_shows_what_it_always_showed_until_either_is_touched() -> None:
    document = of("columns", gap=30.0)
    chart = document.chart("k1")
    dress = msgspec.structs.replace(chart.dress, overrides={"frame.gap_width": 80.0})
    document = edits.change_chart(document, "k1", dress=dress)
    gap = RECIPES["columns"].parameter("gap")
    assert gap is not None
    assert (spec(document).frame.gap_width, setting_of(document.chart("k1"), gap)) == (80.0, 80.0)
    touched = look_edits.set_setting(document, "k1", "gap", 45.0)
    assert spec(touched).frame.gap_width == 45.0
    assert not touched.chart("k1").dress.overrides


def test_owned_looks_are_copied_with_the_dress_and_land_in_the_other_recipe() -> None:
    document = of("columns", gap=110.0)
    document, other = edits.add_chart(document, "t1", "highlight-bars")
    document = look_edits.pasted(document, other, look_edits.copied(document, "k1"))
    assert document.chart(other).settings == {"gap": 110.0}


def test_a_setting_bound_to_a_cell_is_not_a_look() -> None:
    document = of("columns", maximum="=B2")
    assert looks_of(document, document.chart("k1")) == {}


def test_scales_of_shares_obey_their_ends() -> None:
    document = of("columns", stack="100 %", maximum=0.5)
    assert spec(document).frame.along.maximum == 0.5


def _leaves(of: Any, path: str = "") -> dict[str, Any]:
    if isinstance(of, msgspec.Struct):
        parts = [(name, getattr(of, name)) for name in of.__struct_fields__]
    elif isinstance(of, tuple) and any(hasattr(one, "key") for one in of):
        parts = [(one.key, one) for one in of]
    else:
        return {path: of}
    return {at: leaf for name, one in parts for at, leaf in _leaves(one, f"{path}.{name}".strip(".")).items()}


def _tried(parameter: Any) -> list[Setting]:
    low = parameter.minimum or 0.0
    numbers: list[Setting] = [low + ((parameter.maximum or 12.0) - low) / share for share in (3, 2)]
    return {"number": numbers, "choice": list(parameter.choices), "flag": [True, False]}.get(parameter.type, [])


DEMO_DOCUMENT = kavlet.loads((files("kavlet") / "assets" / "demo" / "mirefen.kavlet").read_bytes(), "mirefen.kavlet")
FIRST = {chart.recipe: chart.id for chart in reversed(DEMO_DOCUMENT.charts) if chart.recipe}


@pytest.mark.parametrize("recipe", FIRST)
def test_no_setting_is_without_effect_once_all_it_moves_was_set_by_hand(recipe: str) -> None:
    chart_id = FIRST[recipe]

    def built(document: Document) -> Any:
        made = build_chart(document, values_of(document), chart_id)
        return made.chart, made.helpers

    chart = DEMO_DOCUMENT.chart(chart_id)
    dress = msgspec.structs.replace(chart.dress, overrides={})
    plain = edits.change_chart(DEMO_DOCUMENT, chart_id, dress=dress)
    before, _ = built(plain)
    parts = [None, *(Part(kind, one.key, 0) for one in before.layers for kind in ("layer", "label"))]
    offered = {one.path for part in parts for one in offers(before, part) if one.path}
    tried = 0
    for parameter in recipes_of(plain)[recipe].parameters:
        for value in _tried(parameter):
            try:
                after, _ = built(look_edits.set_setting(plain, chart_id, parameter.name, value))
            except KavletError:
                continue  # a row the table does not have
            old, new = _leaves(before), _leaves(after)
            moved = {path: old[path] for path in offered & old.keys() & new.keys() if old[path] != new[path]}
            if not moved:
                continue
            tried += 1
            held = msgspec.structs.replace(dress, overrides={path: at for path, at in moved.items() if at is not None})
            by_hand = edits.change_chart(plain, chart_id, dress=held)
            touched = look_edits.set_setting(by_hand, chart_id, parameter.name, value)
            assert built(touched) != built(by_hand), f"{parameter.name} = {value} is held by {sorted(moved)}"
    assert tried


def test_a_setting_leaves_the_looks_of_single_rows_and_of_other_places_alone() -> None:
    looks = {"layers.series 1.rows.1.label": False, "layers.series 1.rows.1.stack": "x", "title.size": 20.0}
    document = look_edits.set_looks(of("columns"), "k1", {**looks, "layers.series 1.stack": "stacked"})
    assert look_edits.set_setting(document, "k1", "stack", "100 %").chart("k1").dress.overrides == looks
    with pytest.raises(KavletError, match="no setting “mood”"):
        look_edits.set_setting(document, "k1", "mood", 3.0)


@pytest.mark.parametrize(
    ("what", "taken"),
    [
        ("labels", {"layers.value.label.size", "layers.value.label.number.prefix"}),
        ("colours", {"layers.value.fill", "layers.value.edge", "title.colour"}),
        ("numbers", {"layers.value.label.number.prefix"}),
    ],
)
def test_what_of_a_dress_is_copied(what: look_edits.What, taken: set[str]) -> None:
    looks = {
        "layers.value.label.size": 12.0, "layers.value.label.number.prefix": "~", "layers.value.fill": "#112233",
        "layers.value.edge": "#112233", "title.colour": "#445566", "frame.start": 30.0,
    }  # fmt: skip
    document = look_edits.set_looks(of("pie"), "k1", looks)
    assert set(look_edits.copied(document, "k1", what)) == taken
    assert set(look_edits.copied(document, "k1")) == set(looks)
