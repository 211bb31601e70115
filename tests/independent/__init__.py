"""A second simulator, from physics alone: it imports nothing electrical of the product, and the judge is told nothing of it."""
