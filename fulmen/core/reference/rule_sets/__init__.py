"""The editions of BS 7671 that Fulmen can judge by: one TOML file an edition."""
