"""How one kind of text is set: face, size, weight, slope and colour, each left to the theme where it is not said."""

from msgspec import Struct

from kavlet.core.text.faces import Family
from kavlet.core.values.sizes import TypeSize


class Lettering(Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """Looks that are None or empty follow the theme; `size` is in points."""

    family: Family | None = None
    size: TypeSize | None = None
    bold: bool | None = None
    italic: bool | None = None
    colour: str = ""


PLAIN = Lettering()
