"""A formula: its lines, form and targets, its document, and how versions differ."""
