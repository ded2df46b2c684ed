"""The checks, one file each."""
