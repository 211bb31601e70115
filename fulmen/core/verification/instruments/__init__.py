"""The instruments: their settings, and the points of an installation that their leads go to."""
