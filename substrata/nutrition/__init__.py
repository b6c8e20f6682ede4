"""Energy, net carbohydrate by a named convention, and totals with their spread."""
