"""The frames of charts laid out: their planes, discs and fields, scales with their ends fixed, axes, rows' names."""
