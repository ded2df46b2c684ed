"""The packages behind office files, which an installation may go without (`pip install 'kavlet[office]'`)."""

from functools import cache
from importlib.util import find_spec

from kavlet.core.messages import say
from kavlet.core.values.errors import KavletError

PACKAGES = ("python_calamine", "openpyxl", "xlsxwriter", "odfdo", "pptx", "docx")


@cache
def _missing() -> bool:
    return any(find_spec(package) is None for package in PACKAGES)


def check_office_packages() -> None:
    """Raises KavletError where a package that reads or writes office files is not installed."""
    if _missing():
        raise KavletError(
            say("Office files need packages that are not installed."),
            remedy=say("Install them: pip install 'kavlet[office]'."),
        )
