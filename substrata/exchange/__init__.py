"""Between a formula and words: a pasted list read, two versions compared."""
