"""Figures: the tables."""
