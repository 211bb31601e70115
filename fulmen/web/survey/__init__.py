"""What is seen and asked: photos, load and supply, the network operator, charge points, usual answers."""
