"""Cells, references, formulas and their recalculation."""
