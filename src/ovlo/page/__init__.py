"""What makes a page: its message, its file, a notebook's cell, and its assets."""
