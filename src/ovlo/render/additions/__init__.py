"""What is laid over or around a picture: overlays, contact sheets, differences, the pointer."""
