"""What a careful reader would object to: found beside the window, listed, mended, silenced; and how readers see."""
