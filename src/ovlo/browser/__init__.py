"""The page in the browser: what it is told of a drawing, and how it comes to be a file."""
