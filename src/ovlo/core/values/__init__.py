"""What everything else is made of: poses, colours, chance, findings, and the checks of what users give."""
