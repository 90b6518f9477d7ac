"""What a pen can draw of a picture."""
