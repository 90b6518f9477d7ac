"""What is wrong with a program can at times be read in its source alone."""
