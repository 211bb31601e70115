"""Papers: asked for, issued in turn, told, looked at."""
