"""Pictures on sheets of paper of a printer: handouts and posters."""
