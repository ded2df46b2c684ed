"""The immutable document, its edits and its history."""
