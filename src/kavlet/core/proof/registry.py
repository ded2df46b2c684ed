"""All checks, in the order of the design."""

from kavlet.core.proof.check import Check
from kavlet.core.proof.checks import arrangement, colours, labels, scales, shares, sizes, values, words

CHECKS: dict[str, Check] = {
    check.name: check
    for check in (
        scales.CUT_AXIS,
        sizes.LIE_FACTOR,
        scales.LOG_BARS,
        shares.SHARE_SUM,
        shares.ROUNDING,
        shares.NEGATIVE_SHARE,
        shares.MANY_SLICES,
        scales.TWO_AXES,
        shares.PIES_COMPARED,
        scales.SCALES_DIFFER,
        arrangement.UNSORTED,
        shares.STATED_TOTAL,
        values.NO_BASE,
        scales.OUT_OF_RANGE,
        scales.CAPPED,
        values.MISSING,
        values.DOUBLES,
        values.STALE_SOURCE,
        words.TYPED_NUMBER,
        words.TITLE_MISSING,
        labels.ONE_LEGEND,
        colours.CONTRAST,
        colours.COLOUR_BLIND,
        colours.GREY_PRINT,
        sizes.SMALL_TEXT,
        labels.LABELS_LOST,
        arrangement.OVERLAP,
        sizes.LOW_RESOLUTION,
        sizes.SOLID_SHARE,
        labels.DIGITS,
        values.FORMULA_ERROR,
    )
}
