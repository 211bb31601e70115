"""The householder's link: made by the electrician, answered without an account."""
