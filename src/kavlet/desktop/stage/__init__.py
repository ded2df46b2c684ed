"""Stage: the chart, drawn live."""
