"""Picture bars: bars filled with a symbol or picture, stretched, fitted or repeated."""

from kavlet.core.charts.bars import Bars
from kavlet.core.charts.chart import Chart
from kavlet.core.charts.frame import Cartesian
from kavlet.core.charts.labels import Label
from kavlet.core.charts.legend import Legend
from kavlet.core.charts.scale import Scale
from kavlet.core.messages import say
from kavlet.core.recipes.building_blocks import NAME, VALUE, choice, direction, flag, gap, said
from kavlet.core.recipes.features import Features, Suitability, when
from kavlet.core.recipes.recipe import CellAddresses, Inputs, Parameter, Recipe
from kavlet.core.recipes.table_problems import need_no_negatives, need_numbers
from kavlet.core.styling.fills import How, PictureFill


def formulas(cells: CellAddresses) -> dict[str, list[str]]:
    """The bars read the figures themselves."""
    del cells
    return {}


def check(inputs: Inputs) -> None:
    """Pictures have no way to show what is below zero."""
    need_numbers(inputs, "value")
    need_no_negatives(inputs, "value", say("A picture bar"))


def chart(inputs: Inputs) -> Chart:
    """One layer of bars with a picture as fill."""
    settings = inputs.settings
    how: How = settings["how"]  # type: ignore[assignment]
    fill = PictureFill(str(settings["symbol"]), how, turned=bool(settings["turned"]))
    label = Label(number=inputs.number_text("value"), position="outside", bold=True) if settings["labels"] else None
    return Chart(
        Cartesian(
            lying=settings["direction"] == "lying",
            gap_width=inputs.setting("gap"),
            along=Scale(minimum=0.0, visible=False, grid=False),
            across=Scale(kind="category", line=True),
        ),
        (Bars("value", inputs.title("value"), inputs.id("value"), fill=fill, radius=0.0, label=label),),
        names=inputs.id("name"),
        legend=Legend(side="none"),
        alt_text=inputs.drawn("Picture bars of {what}: {figures}.", what=inputs.title("value"), figures=said(inputs)),
    )


def suits(of: Features) -> Suitability:
    return when((of.counts and of.rows <= 10, 0.62, "counts as pictures"))


PICTURE_BARS = Recipe(
    name="picture-bars",
    title="Picture bars",
    question="count",
    known_as="people, icons, symbols, pictures, images",
    needs="Names, and a number for each.",
    roles=(NAME, VALUE),
    parameters=(
        Parameter("symbol", "symbol", "tree", "The symbol or picture the bars are filled with."),
        choice(
            "how",
            "Repeated from the base, one stretched over the bar, or one fitted.",
            "repeated",
            "stretched",
            "fitted",
        ),
        direction("standing"),
        flag("turned", False, "Turn the picture with a lying bar."),
        flag("labels", True, "Write the figures above the bars."),
        gap(50.0),
    ),
    helpers=(),
    formulas=formulas,
    check=check,
    chart=chart,
    suits=suits,
)
