"""SVG files of any program, read as shapes."""
