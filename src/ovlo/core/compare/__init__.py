"""Whether two pictures are the same."""
