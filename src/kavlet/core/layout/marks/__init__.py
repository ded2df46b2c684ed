"""Layers placed on frames as marks: one file per layer type, of the same name as its specification."""
