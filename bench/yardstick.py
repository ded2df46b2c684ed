"""The same funnel drawn by matplotlib: bars on hidden offsets, values inside, rates between, names at the left."""

import io

NAMES = ["Visits", "Guided walks", "Newsletter", "Donations", "Members"]


def matplotlib_funnel(values: list[float], ending: str = "svg") -> bytes:
    """Build the figure anew and write it, as a script does for each change."""
    import matplotlib as mpl

    mpl.use("Agg")
    from matplotlib import pyplot as plt

    figure, axes = plt.subplots(figsize=(640 / 72, 360 / 72), dpi=72)
    most = max(values)
    rows = range(len(values))
    axes.barh(rows, values, left=[(most - value) / 2 for value in values], height=0.62, color="#7a2e5d")
    for row, value in enumerate(values):
        axes.text(most / 2, row, f"{value:,.0f}", ha="center", va="center", color="white", weight="bold")
        axes.text(most * 1.1, row, f"{value / values[0]:.1%}", ha="right", va="center")
        if row:
            axes.text(most / 2, row - 0.5, f"{value / values[row - 1]:.1%}", ha="center", va="center")
    axes.set_yticks(rows, NAMES)
    axes.invert_yaxis()
    axes.set_title("Visitor path", loc="left", weight="bold")
    axes.xaxis.set_visible(False)
    for spine in axes.spines.values():
        spine.set_visible(False)
    buffer = io.BytesIO()
    figure.savefig(buffer, format=ending)
    plt.close(figure)
    return buffer.getvalue()
