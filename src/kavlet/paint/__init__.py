"""Scenes on QPainter: windows, pictures, PDF. QtGui only, no widgets."""
