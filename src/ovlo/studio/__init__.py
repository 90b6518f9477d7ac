"""What serves a page: a sheet shown and followed, a program explored, both also in notebooks."""
