"""Published tables, rule sets, catalogues and usual values: data files beside their loaders."""
