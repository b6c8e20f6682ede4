"""People as such: signing in, mail, invitations, ending an account."""
