"""Labelled programs, wrong and right, and what a check finds of them."""
