"""Pure geometry, drawn onto pens; knows no data."""
