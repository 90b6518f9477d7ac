"""A trail into bytes: one module a format."""
