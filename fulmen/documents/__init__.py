"""Papers: templates and their rendering. They render what the core says and compute nothing."""
