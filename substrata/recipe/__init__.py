"""What is handed on: the recipe in words and measures, and its ways out as files."""
