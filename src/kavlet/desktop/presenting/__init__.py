"""Pages shown to people: full screen, stepping, figures changed before their eyes, and the speaker's own view."""
