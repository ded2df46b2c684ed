"""Dress: texts, settings and look of the chart."""
