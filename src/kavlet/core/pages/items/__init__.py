"""What a page can hold, one file for each kind."""
