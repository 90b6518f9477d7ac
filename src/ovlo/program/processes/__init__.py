"""Processes beside the one of a program: they guard it, keep what it drew, or draw many pictures at once."""
