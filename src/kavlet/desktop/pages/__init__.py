"""The place where pages are set: the strip of pages, the page on its desk, and the fields of what is chosen."""
