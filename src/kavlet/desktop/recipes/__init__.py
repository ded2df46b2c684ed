"""The recipe wall, and what belongs to recipes in the window."""
