"""What bodies are made of: how much they gleam."""

from typing import Literal

Material = Literal["matte", "satin", "glossy"]
