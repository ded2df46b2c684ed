"""Shipped faces, shaping, line breaking and number text."""
