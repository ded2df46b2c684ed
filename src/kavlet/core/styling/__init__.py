"""Themes, overrides and their resolution to one concrete style."""
