"""A user's file: drawings, loading, running."""
