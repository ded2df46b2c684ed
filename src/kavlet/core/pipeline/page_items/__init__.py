"""From a page to its scene: one file for each kind of item, and `page.py` that puts them together."""
