"""The whole judgement of a formula: figures, brackets, remedies, warnings and the sentence."""
