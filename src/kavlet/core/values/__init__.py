"""Plain values that every stage shares: lengths, rectangles, colours, errors."""
