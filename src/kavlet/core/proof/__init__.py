"""What a careful reader would object to, and the remedy: one file per check in `checks`."""
