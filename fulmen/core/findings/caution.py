"""The caution that the app and every paper state, word for word."""

CAUTION = (
    "Figures rest on what was entered. Check them against the standard in force and local rules. "
    "Design, live work and certification are for competent, registered people. "
    "Isolate, prove dead, lock off."
)
