"""The alphabet of single strokes, drawn by steering a nib: `make letters` writes the file that Ovlo reads."""
