"""What a nib does: steering, shapes, words, blocks."""
