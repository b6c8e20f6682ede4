"""Units, spread and the amounts that bakers write."""
