"""The files opened last, newest first, kept between runs."""

from pathlib import Path

from kavlet.desktop.state_files import read_state, write_state

MAX_FILES = 10
_NAME = "recent"


def recent() -> list[Path]:
    """The files opened last that are still there."""
    held = read_state(_NAME)
    names = [name for name in held if isinstance(name, str)] if isinstance(held, list) else []
    return [path for path in map(Path, names) if path.is_file()][:MAX_FILES]


def remember(path: Path) -> None:
    """Put a file first. A state folder that can't be written loses the list, nothing else."""
    path = path.resolve()
    names = [str(path), *(str(one) for one in recent() if one != path)][:MAX_FILES]
    write_state(_NAME, names)
