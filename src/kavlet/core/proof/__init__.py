"""What a reader could be misled by, one file per check."""
