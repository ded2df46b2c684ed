"""Charts as solids: bodies for flat marks, seen from where the author looks."""
