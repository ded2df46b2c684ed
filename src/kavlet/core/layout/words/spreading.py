"""Spreads what would stand on each other along a line, as near to where each wants to be as it can."""

from kavlet.core.values.geometry import Rect


def spread(wishes: list[float], heights: list[float], gap: float, bounds: Rect) -> list[float] | None:
    """Heights of labels' middles, as near to the wishes as they can be with a gap between; None without room.

    Blocks that collide are merged and put where their mean wish is, as in isotonic regression.
    """
    if sum(heights) + gap * (len(heights) - 1) > bounds.height:
        return None
    offsets: list[float] = []
    total = 0.0
    for height in heights:
        offsets.append(total + height / 2)
        total += height + gap
    blocks: list[list[float]] = []  # [mean start, weight, count]
    for wish, offset in zip(wishes, offsets, strict=True):
        blocks.append([wish - offset, 1.0, 1.0])
        while len(blocks) > 1 and blocks[-2][0] > blocks[-1][0]:
            last, before = blocks.pop(), blocks[-1]
            weight = before[1] + last[1]
            before[0] = (before[0] * before[1] + last[0] * last[1]) / weight
            before[1], before[2] = weight, before[2] + last[2]
    starts: list[float] = []
    for start, _, count in blocks:
        starts += [start] * int(count)
    low, high = bounds.y, bounds.bottom - (total - gap)
    return [min(max(start, low), high) + offset for start, offset in zip(starts, offsets, strict=True)]
