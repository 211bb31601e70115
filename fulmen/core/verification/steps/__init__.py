"""The steps of the tests: which a design asks for, in which order, what each should read and what limits it."""
