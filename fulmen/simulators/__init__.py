"""Stand-ins that ship with Fulmen, clearly marked: nobody outside this machine takes part in them."""
