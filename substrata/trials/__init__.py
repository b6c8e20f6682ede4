"""What comes back from the bench: causes of a verdict, the next trial, what a kitchen's runs teach, and their comparison."""
