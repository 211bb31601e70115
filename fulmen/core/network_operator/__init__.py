"""What the network operator must be told."""
