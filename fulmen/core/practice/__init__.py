"""Practice: an installation with a hidden fault, the learner's acts on it, and how they are marked."""
