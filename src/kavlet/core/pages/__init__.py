"""Pages: sheets and slides of charts, words and figures at true size. Frozen specifications and plain arithmetic."""
