"""What every call passes: listening, bounds, who may call, problems, compression, replies."""
