### The page: shape.

## piece-side

shape-piece-side-piece-by = Piece: { $length_mm } by { $thickness_mm } { $unit }
shape-piece-side-thickness-shown-larger = thickness shown { $magnified }× larger
shape-piece-side-sheets = { $layers } sheets
shape-piece-side-thickness = Thickness
shape-piece-side-size = Size

## shape-view

shape-shape-view-no-dough-to-shape-yet = No dough to shape yet.
shape-shape-view-to-the-bench = To the bench
shape-shape-view-thickness = Thickness
shape-shape-view-fixed = · fixed
shape-shape-view-size = Size
shape-shape-view-hole = Hole
shape-shape-view-hole-2 = hole
shape-shape-view-without-a-hole = without a hole
shape-shape-view-with-a-hole = with a hole
shape-shape-view-pieces = Pieces
shape-shape-view-slices = slices
shape-shape-view-pieces-2 = pieces
shape-shape-view-on = on
shape-shape-view-tray = Tray
shape-shape-view-in = in
shape-shape-view-ring = Ring
shape-shape-view-no-ring = no ring
shape-shape-view-loaf-pan = Loaf pan
shape-shape-view-the-piece-from-the-side = The piece from the side
shape-shape-view-drag-an-edge-to-resize = Drag an edge to resize
shape-shape-view-each-when-shaped-by-hand = each, ± { $tolerance_g } when shaped by hand
shape-shape-view-of-dough-density-g-ml = { $dough_g } of dough{ $bodies } · density { $g_per_ml } g/mL
shape-shape-view-fills-of-the-pan = · fills { $fill_share } of the pan
shape-shape-view-rolled-sheet-re-roll-of-trimmings = Rolled sheet: { $sheet_cm2 }. Re-roll { $scraps_g } of trimmings { $rerolls }×. Dock every { $docking_mm }.
shape-shape-view-top-view = { $name }, top view
shape-shape-view-staggered = staggered
shape-shape-view-in-rows = in rows
shape-shape-view-oil = oil
shape-shape-view-oven = oven
shape-shape-view-fit-with-room-to-spread-in = { $places } fit { $way }, with room to spread in the { $fried }
shape-shape-view-on-the-last-one = { $trays } { $trays ->
        [one] tray
       *[other] trays
    }, { $on_last } on the last one
shape-shape-view-oven-with-two-trays-at-a = ; { $loads } oven { $loads ->
        [one] load
       *[other] loads
    } with two trays at a time
shape-shape-view-the-pieces-do-not-fit-on = The pieces do not fit on this tray. Choose a larger tray or fewer pieces.
shape-shape-view-gap = Gap
shape-shape-view-gap-between-pieces = Gap between pieces
shape-shape-view-the-usual = , the usual
shape-shape-view-the-same-dough-in-another-pan = The same dough in another pan
shape-shape-view-pan = pan
shape-shape-view-with-this-dough = with this dough
shape-shape-view-dough-for-the-same-thickness = dough for the same thickness
shape-shape-view-scale-to-this-pan = Scale to this pan
shape-shape-view-of-dough = { $dough_g } { $unit } of dough

## tray-top

shape-tray-top-by-mm-pieces = { $name }, { $length_mm } by { $width_mm } mm: { $places } pieces

## own-pans

shape-own-pans-your-own-pans-and-trays = your own pans and trays ({ $its })
shape-own-pans-remove = remove
shape-own-pans-name = name
shape-own-pans-name-of-the-pan = Name of the pan
shape-own-pans-pan-type = Pan type
shape-own-pans-length = length
shape-own-pans-inner-length-or-diameter = Inner length or diameter, { $unit }
shape-own-pans-width = width
shape-own-pans-inner-width = Inner width, { $unit }
shape-own-pans-height = height
shape-own-pans-inner-height = Inner height, { $unit }
shape-own-pans-save = Save
