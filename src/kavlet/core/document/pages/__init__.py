"""Pages of a document: edits of pages and the fields of their items."""
