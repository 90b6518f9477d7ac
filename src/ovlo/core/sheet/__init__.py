"""Sheets, nibs and motifs, and who hosts a running program."""
