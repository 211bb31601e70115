"""The rules and the arithmetic. Imports no web, database, document, clock or network code."""
