"""Ingredients: what they are made of, how they behave, how they are measured."""
