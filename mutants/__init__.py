"""Small wrong changes, and whether the tests of their room notice: `make mutants`."""
