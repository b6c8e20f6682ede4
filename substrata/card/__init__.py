"""What is handed on with the food: panels, statement, allergens, claims, cautions."""
