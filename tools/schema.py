"""Writes docs/kavlet.schema.json from the document's types."""

import json
from pathlib import Path

from kavlet.core.files.kavlet import schema

if __name__ == "__main__":
    target = Path(__file__).parent.parent / "docs" / "kavlet.schema.json"
    target.write_text(json.dumps(schema(), indent=2) + "\n", encoding="utf-8")
