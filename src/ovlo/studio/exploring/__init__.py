"""A program explored: its form, its process, what is asked of it, and what is done with its values."""
