"""What the house takes, and what to do when it does not fit."""
