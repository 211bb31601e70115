"""Jobs: listed, read, judged, saved; the acts of a person; reasons."""
