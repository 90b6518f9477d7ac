"""What can be seen: marks painted on a raster, and colours that can be told from one another."""
