"""Deliver: all ways out."""
