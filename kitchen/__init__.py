"""What is remembered: kitchens, people, formulas, versions; one use case is one service function."""
