from .baking.bake_case import BakeCase
from .baking.bake_simulation import run
from .baking.oven_profile import OvenProfile
from .baking.oven_questions import MAP_SIDE, BakeMap, bake_map, thickest_in
from .baking.simulation.oven_constants import bakeware
from .rheology.handling.handling_forecast import DEGREES, MINUTES
from .rheology.handling.resting import rest_places
from .rheology.handling_classes import classes
from .rheology.texture import texture_words

__all__ = [
    "DEGREES",
    "MAP_SIDE",
    "MINUTES",
    "BakeCase",
    "BakeMap",
    "OvenProfile",
    "bake_map",
    "bakeware",
    "classes",
    "rest_places",
    "run",
    "texture_words",
    "thickest_in",
]
