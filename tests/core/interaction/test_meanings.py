"""Every field that Dress offers says what it does, and in which unit."""

import pytest

from kavlet.core.interaction.meanings import MEANINGS, meaning
from kavlet.core.interaction.offers import offers
from kavlet.core.interaction.parts import Part
from kavlet.core.layout.kinds import kinds, type_name
from kavlet.core.recipes.registry import RECIPES
from tests.picturing import of_recipe

UNITS = {"pt": "points", "°": "degrees", "%": "%"}


@pytest.mark.parametrize("name", RECIPES)
def test_each_field_says_what_it_does(name: str) -> None:
    for look in ("ruled", "solid"):
        chart = of_recipe(name, look).build.chart
        keys = [layer.key for layer in chart.layers]
        parts = [None, Part("legend", ""), *(Part("text", one) for one in ("title", "subtitle", "source"))]
        parts += [Part("axis", one) for one in ("along", "across")]
        parts += [part for key in keys for part in (Part("layer", key), Part("mark", key, 0), Part("label", key, 0))]
        for field in (field for part in parts for field in offers(chart, part)):
            does = meaning(field)
            if field.kind == "switch":
                continue
            assert does is not None, field.path
            assert not field.unit or UNITS[field.unit] in does.text, (field.path, does.text)


def test_meanings_are_sentences() -> None:
    assert all(one.text[0].isupper() and one.text.endswith(".") for one in MEANINGS.values() if "#" not in one.text)


def test_fields_of_layer_types_say_it_themselves() -> None:
    """No field is explained by the last word of its path, which may mean another thing in another type."""
    fields = [(type_name(kind), field) for kind in kinds() for field in (*kind.fields, *kind.row_fields)]
    assert len(fields) > 30
    assert [(name, field.path) for name, field in fields if not field.does] == []
