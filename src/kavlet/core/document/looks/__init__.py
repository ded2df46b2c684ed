"""Looks of charts: edits of what is set by hand, who owns a setting, and what becomes of it when tables change."""
