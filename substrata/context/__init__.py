"""One dough, worked out once: what every station, the solver, the trials and the plan share of a formula."""
