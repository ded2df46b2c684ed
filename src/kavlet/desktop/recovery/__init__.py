"""What is kept of a document while it is open, and what is offered after a crash."""
