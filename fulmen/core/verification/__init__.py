"""Dead and live tests, what they should read, and what a certificate still lacks."""
