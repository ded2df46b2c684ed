"""Areas of outlines, by flattening their curves."""

from kavlet.core.scene.path import CURVE, LINE, MOVE, Path

PIECES = 24  # straight pieces per curve
Polygon = list[tuple[float, float]]


def polygons(path: Path) -> list[Polygon]:
    """The outline as closed polygons, one per part."""
    found: list[Polygon] = []
    at, c = 0, path.coordinates
    for verb in path.verbs:
        if verb == MOVE:
            found.append([(c[at], c[at + 1])])
            at += 2
        elif verb == LINE:
            found[-1].append((c[at], c[at + 1]))
            at += 2
        elif verb == CURVE:
            x0, y0 = found[-1][-1]
            x1, y1, x2, y2, x3, y3 = c[at : at + 6]
            for i in range(1, PIECES + 1):
                t = i / PIECES
                u = 1 - t
                a, b, d, e = u**3, 3 * u * u * t, 3 * u * t * t, t**3
                found[-1].append((a * x0 + b * x1 + d * x2 + e * x3, a * y0 + b * y1 + d * y2 + e * y3))
            at += 6
    return [polygon for polygon in found if len(polygon) > 2]


def signed(polygon: Polygon) -> float:
    """The area of a polygon by the shoelace formula; its sign tells which way round it goes."""
    return sum(
        x1 * y2 - x2 * y1 for (x1, y1), (x2, y2) in zip(polygon, [*polygon[1:], polygon[0]], strict=True)
    ) / 2  # fmt: skip


def area(path: Path) -> float:
    """The inked area of an outline whose holes go the other way round."""
    return abs(sum(signed(polygon) for polygon in polygons(path)))


def left_of(path: Path, share: float) -> float:
    """The x left of which a share of the inked area lies; 0 and 1 give the sides of the box around it."""
    held = polygons(path)
    xs = [x for polygon in held for x, _ in polygon]
    if not xs:
        return 0.0
    low, high = min(xs), max(xs)
    whole = sum(signed(polygon) for polygon in held)
    if not whole or share <= 0:
        return low
    for _ in range(40):
        middle = (low + high) / 2
        if sum(signed(left) for polygon in held if (left := _cut(polygon, middle))) / whole < share:
            low = middle
        else:
            high = middle
    return (low + high) / 2


def _cut(polygon: Polygon, x: float) -> Polygon:
    """What of a polygon lies left of x (Sutherland and Hodgman 1974)."""
    kept: Polygon = []
    for (x1, y1), (x2, y2) in zip([polygon[-1], *polygon[:-1]], polygon, strict=True):
        if (x1 <= x) != (x2 <= x):
            t = (x - x1) / (x2 - x1)
            kept.append((x, y1 + t * (y2 - y1)))
        if x2 <= x:
            kept.append((x2, y2))
    return kept
