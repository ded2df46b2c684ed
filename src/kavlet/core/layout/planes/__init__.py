"""Where rows and figures are points: Cartesian planes, discs, fields of cells, and their scales."""
