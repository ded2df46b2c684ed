"""Small things kept between runs, outside documents: a JSON file each in the folder of the program's state."""

import json
from pathlib import Path

from platformdirs import user_state_path

from kavlet.core.files import atomic
from kavlet.core.values.errors import KavletError


def _file(name: str) -> Path:
    return user_state_path("kavlet", appauthor=False) / f"{name}.json"


def read_state(name: str) -> object:
    """What is kept under a name, as JSON holds it; None where there is nothing that can be read."""
    try:
        return json.loads(_file(name).read_text(encoding="utf-8"))
    except (OSError, ValueError, RecursionError):
        return None


def write_state(name: str, what: object) -> None:
    """Keep something under a name. A folder that can't be written loses it, and hinders nothing else."""
    try:
        _file(name).parent.mkdir(parents=True, exist_ok=True)
        atomic.write(_file(name), json.dumps(what).encode())
    except (OSError, KavletError):
        return
