"""Fulmen: design, test and certify one home EV charge point circuit."""

__version__ = "0.1.0"
