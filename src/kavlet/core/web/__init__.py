"""Charts and pages as one HTML file that needs no network."""
