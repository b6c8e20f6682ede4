"""Words for people: a message is a key with typed values, rendered for whoever reads it.

It knows no dough. Begin with ``message.py``; ``reader.py`` says in which units and language somebody reads.
"""
