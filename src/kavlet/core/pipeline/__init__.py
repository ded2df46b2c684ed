"""From a document to a picture: what is read, the stages one after the other, and what is reused between edits."""
