"""The day, the broken-PEN bench and the RCD chain, played through."""
