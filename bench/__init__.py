"""Ratios against the floors; `make bench` prints them."""
