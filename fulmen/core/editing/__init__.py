"""Reading, writing and changing the job document."""
