"""What the Prep, Shape and Oven stations show of a dough."""
