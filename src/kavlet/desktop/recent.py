"""The files opened last, newest first, kept between runs."""

import json
from pathlib import Path

from platformdirs import user_state_path

from kavlet.core.files import atomic
from kavlet.core.values.errors import KavletError

MOST = 10


def _file() -> Path:
    return user_state_path("kavlet", appauthor=False) / "recent.json"


def recent() -> list[Path]:
    """The files opened last that are still there."""
    try:
        held = json.loads(_file().read_text(encoding="utf-8"))
    except (OSError, ValueError):
        return []
    names = [name for name in held if isinstance(name, str)] if isinstance(held, list) else []
    return [path for path in map(Path, names) if path.is_file()][:MOST]


def remember(path: Path) -> None:
    """Put a file first. A state folder that can't be written loses the list, nothing else."""
    path = path.resolve()
    names = [str(path), *(str(one) for one in recent() if one != path)][:MOST]
    try:
        _file().parent.mkdir(parents=True, exist_ok=True)
        atomic.write(_file(), json.dumps(names).encode())
    except (OSError, KavletError):
        return
