"""Frozen specifications of charts: frame, layers, scales, labels."""
