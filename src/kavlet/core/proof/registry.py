"""All checks, in the order of the design."""

from kavlet.core.proof.check import Check
from kavlet.core.proof.checks import (
    capped,
    colour_blind,
    contrast,
    cut_axis,
    digits,
    doubles,
    formula_error,
    grey_print,
    labels_lost,
    lie_factor,
    log_bars,
    low_resolution,
    many_slices,
    missing,
    negative_share,
    no_base,
    one_legend,
    out_of_range,
    overlap,
    pies_compared,
    rounding,
    scales_differ,
    share_sum,
    small_text,
    solid_share,
    stale_source,
    stated_total,
    title_missing,
    two_axes,
    typed_number,
    unsorted,
)

CHECKS: dict[str, Check] = {
    module.CHECK.name: module.CHECK
    for module in (
        *(cut_axis, lie_factor, log_bars, share_sum, rounding, negative_share, many_slices, two_axes, pies_compared),
        *(scales_differ, unsorted, stated_total, no_base, out_of_range, capped, missing, doubles, stale_source),
        *(typed_number, title_missing, one_legend, contrast, colour_blind, grey_print, small_text, labels_lost),
        *(overlap, low_resolution, solid_share, digits, formula_error),
    )
}
