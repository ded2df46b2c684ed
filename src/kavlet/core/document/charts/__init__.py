"""Charts of a document: edits of charts as wholes, periods, the direction of their data, own recipes."""
