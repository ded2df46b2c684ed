"""Writes docs/proof.md: what Proof checks, from the checks themselves."""

import sys
from pathlib import Path

from kavlet.core.proof.registry import CHECKS

TARGET = Path(__file__).parent.parent / "docs" / "proof.md"
HEAD = """# Proof

Proof reads the document as a sceptical reader would and says what it finds, with its figure, the reason, the place
and what mends it. It reads beside the window, once the chart is painted, and only what changed.

The button *Proof* in the window's upper right corner (F8) tells how much is open. The list below the places has what
is found of the document, of each chart and of each page, the gravest first: a triangle is a warning, a ring a note, a
square an error. ↑ and ↓ (F7, Shift+F7 from anywhere) go through it and bring each place into view with its part
outlined; Return carries out the first remedy (Ctrl+Shift+M from anywhere).

- **A remedy** is one click and one step to undo. One with … changes what the chart says (another recipe, other
  figures): it is shown first, and you take it or leave it. *All of this kind* mends every such finding of the
  document, as one step.
- **Silencing** leaves a finding as it is: for its chart or page, or for the document. It needs a reason, which stays
  in the document and in the list; *Listen again* takes it back.
- **Nothing found** is said too, with the number of checks.

**The eye** above the chart and below the pages (and in *View*) shows both as some readers see them: without red,
green or blue cones (Machado and others 2009), as grey print, from the last row (a tenth of the size). *Deliver* has
the same choice for its preview; pictures are written so too, for a check, and so does `kavlet render --as-seen-by`.

**Alt texts** are written from the figures, in the document's language, in at most 250 characters: what is largest,
what changed, the trend, what stands out. *Alt text* in Dress takes one of your own; when the figures move on, Proof
asks whether it is still true. HTML files hold a longer description as well.

On the command line, `kavlet check FILE.kavlet` prints the same ([The command line](command-line.md)).

## The checks

| Check | Objects to | Threshold by |
| --- | --- | --- |
"""


def page() -> str:
    """The page's text."""
    rows = [f"| {check.name} | {check.says} | {check.source} |" for check in CHECKS.values()]
    return HEAD + "\n".join(rows) + "\n"


def main() -> None:
    """Write it; with --check, fail where it is out of date."""
    if "--check" in sys.argv:
        sys.exit(TARGET.read_text(encoding="utf-8") != page())
    TARGET.write_text(page(), encoding="utf-8")


if __name__ == "__main__":
    main()
