"""Settle: a formula brought into its targets, and what it takes to leave something out, to begin, to go further."""
