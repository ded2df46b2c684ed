"""All recipes, by name. A new recipe is one file and one line here."""

from kavlet.core.messages import say
from kavlet.core.recipes.areas import AREAS
from kavlet.core.recipes.bars import BARS
from kavlet.core.recipes.battery import BATTERY
from kavlet.core.recipes.bridge import BRIDGE
from kavlet.core.recipes.bubbles import BUBBLES
from kavlet.core.recipes.capped_bars import CAPPED_BARS
from kavlet.core.recipes.capsule import CAPSULE
from kavlet.core.recipes.columns import COLUMNS
from kavlet.core.recipes.combined import COMBINED
from kavlet.core.recipes.funnel import FUNNEL
from kavlet.core.recipes.gauge import GAUGE
from kavlet.core.recipes.growth_bars import GROWTH_BARS
from kavlet.core.recipes.highlight_bars import HIGHLIGHT_BARS
from kavlet.core.recipes.lines import LINES
from kavlet.core.recipes.mirrored_bars import MIRRORED_BARS
from kavlet.core.recipes.pictogram import PICTOGRAM
from kavlet.core.recipes.picture_bars import PICTURE_BARS
from kavlet.core.recipes.pie import PIE
from kavlet.core.recipes.points import POINTS
from kavlet.core.recipes.radial_bars import RADIAL_BARS
from kavlet.core.recipes.recipe import Recipe
from kavlet.core.recipes.stacked_bars import STACKED_BARS
from kavlet.core.recipes.stepping import STEPPING
from kavlet.core.recipes.target_columns import TARGET_COLUMNS
from kavlet.core.recipes.thermometer import THERMOMETER
from kavlet.core.recipes.two_level_ring import TWO_LEVEL_RING
from kavlet.core.recipes.waffle import WAFFLE
from kavlet.core.values.errors import KavletError

RECIPES: dict[str, Recipe] = {
    recipe.name: recipe
    for recipe in (
        *(GAUGE, THERMOMETER, BATTERY, CAPSULE, RADIAL_BARS, TARGET_COLUMNS),
        *(PIE, TWO_LEVEL_RING, WAFFLE, STACKED_BARS),
        FUNNEL,
        *(BRIDGE, GROWTH_BARS),
        *(PICTOGRAM, PICTURE_BARS),
        *(HIGHLIGHT_BARS, CAPPED_BARS),
        *(COLUMNS, BARS, LINES, AREAS, POINTS, BUBBLES, MIRRORED_BARS, COMBINED, STEPPING),
    )
}


def recipe(name: str) -> Recipe:
    """The recipe of that name. Raises KavletError when there is none."""
    if name not in RECIPES:
        raise KavletError(
            say("There is no recipe “{name}”.", name=name), remedy=say("There are: {names}.", names=list(RECIPES))
        )
    return RECIPES[name]
