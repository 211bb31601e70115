"""The store: jobs, readings, issued papers and the audit trail in SQLite."""
