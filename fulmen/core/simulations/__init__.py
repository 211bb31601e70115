"""What is played through: benches of the supply and its protection, and an installation as it was built."""
