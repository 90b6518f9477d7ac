"""What the command line says, and how."""
