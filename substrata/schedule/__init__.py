"""Several bakes, few hands, one oven, ready in time: tasks, a plan of them, how surely it holds, and what to do when it slips."""
