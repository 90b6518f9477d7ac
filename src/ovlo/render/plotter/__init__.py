"""What a plotter draws of a picture, as files for machines and as a preview."""
