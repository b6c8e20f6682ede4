"""From dough weight to pieces on a tray: thickness, size, number, laying, growth."""
