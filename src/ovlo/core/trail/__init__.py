"""The record of everything drawn, and arithmetic on it. Reading changes nothing in it."""
