"""What a picture can be written as, one module a format, and the table of their file endings."""
