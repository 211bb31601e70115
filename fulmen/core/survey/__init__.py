"""What is seen, what is still open, and whom to ask."""
