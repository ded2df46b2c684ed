"""Tables of a document: edits of cells, rows, columns and sources; what columns are; helper columns."""
