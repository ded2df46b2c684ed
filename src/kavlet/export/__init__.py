"""All ways in which charts and pages leave. Qt is loaded only by those that need it."""
