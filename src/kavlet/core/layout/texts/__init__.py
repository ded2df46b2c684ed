"""Texts of a chart before they have a place: lines that are measured, and what labels say."""
