"""The demo kitchen: a two-person market bakery of our own invention."""
