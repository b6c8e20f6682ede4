"""Open documents, declared once: a dataclass whose fields say what they may hold.

Reader, writer, JSON Schema, the API's model and the words for a difference all follow from ``Annotated`` fields::

    oven_c: Annotated[float | None, Number(low=60, high=350, unit="°C", said="oven")] = None

``kinds.py`` has the kinds of single values, ``collections.py`` those that hold others, ``records.py`` what is done with a
whole record.
"""
