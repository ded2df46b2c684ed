"""One file per layer type: how it is said by plain groups of series."""
