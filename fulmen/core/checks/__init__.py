"""The checks: each module judges one subject of a case and answers with findings."""
