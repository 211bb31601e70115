"""How the whole suite is run: parts, workers that run modules, what they tell, and what is told of it at the end."""
