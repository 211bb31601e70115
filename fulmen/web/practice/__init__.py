"""Practice: sets, exercises and their acts."""
