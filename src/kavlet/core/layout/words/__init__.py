"""The words of a chart: what labels say and where they stand, titles, the legend."""
