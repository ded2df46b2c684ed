"""The window: one folder per place in it; Qt Widgets over the core."""
