"""One file per format."""
