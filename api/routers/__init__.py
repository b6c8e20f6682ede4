"""One router a station."""
