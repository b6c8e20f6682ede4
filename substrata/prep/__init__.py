"""Everything done to materials before and while mixing: drying, melting, warming, waking, gelling, blending."""
