### The page: oven.

## oven-log

oven-oven-log-log-a-bake-saved = Log a bake · { $bakes } { $bakes ->
        [one] bake
       *[other] bakes
    } saved
oven-oven-log-oven-offset-assumed-0-before-your = Oven offset: assumed 0 ± { $prior_half_k } before your first bake; now { $offset_half_k }, from { $learned_from } { $learned_from ->
        [one] bake
       *[other] bakes
    } (those of the Run station included).
oven-oven-log-altitude-of-this-oven = Altitude of this oven:
oven-oven-log-altitude-of-this-oven-2 = Altitude of this oven
oven-oven-log-above-the-sea-for-every-formula = above the sea, for every formula baked in it.
oven-oven-log-done-at = done at
oven-oven-log-done-at-minutes = Done at, minutes
oven-oven-log-min = min
oven-oven-log-weight = weight
oven-oven-log-weight-before = Weight before, { $unit }
oven-oven-log-weight-after = Weight after, { $unit }
oven-oven-log-thermometer-in-the-empty-oven = thermometer in the empty oven
oven-oven-log-thermometer-in-the-empty-oven-2 = Thermometer in the empty oven, { $unit }
oven-oven-log-save-this-bake = Save this bake
oven-oven-log-min-2 = { $minutes } min
oven-oven-log-thermometer = thermometer { $probe_c }
oven-oven-log-delete = delete

## oven-view

oven-oven-view-oven-settings = Oven settings
oven-oven-view-varieties = Varieties
oven-oven-view-oil = Oil
oven-oven-view-oven-setting = Oven setting
oven-oven-view-oil-degrees = Oil, degrees
oven-oven-view-log-this-bake = Log this bake
oven-oven-view-compare-with-this-forecast = Compare with this forecast
oven-oven-view-dashed-the-forecast-at-with-the = Dashed: the forecast at { $name }. With the current settings it is done { $difference }.
oven-oven-view-stop-comparing = Stop comparing
oven-oven-view-nothing-to-bake-yet-add-a = Nothing to bake yet. Add a flour, fiber, or binder first.
oven-oven-view-go-to-formula = Go to formula
oven-oven-view-at-the-same-time = at the same time
oven-oven-view-later = later
oven-oven-view-sooner = sooner
oven-oven-view-min = { $minutes } min { $direction }
oven-oven-view-as-heavy = as heavy

## bake-curves

oven-bake-curves-core-temperature-and-weight-loss = Core temperature and weight loss
oven-bake-curves-safe = { $safe_c } { $safe_for }-safe{ $passed }
oven-bake-curves-core = core { $core_c_at_ready }
oven-bake-curves-weight = weight −{ $best } %
oven-bake-curves-safe-at-min = ; { $what }-safe at { $safe } min
oven-bake-curves-core-and-weight-loss-when-done = Core { $core } and { $best } % weight loss when done{ $safely }
oven-bake-curves-passed-at-min = , passed at { $safe_min } min

## oven-side

oven-oven-side-oven = Oven
oven-oven-side-deep-frying = Deep-frying
oven-oven-side-which-oven = Which oven
oven-oven-side-an-unknown-oven = an unknown oven
oven-oven-side-target-weight-out-of-the-oven = Target weight out of the oven
oven-oven-side-per-piece = { $low }–{ $high }; { $bake_to_piece_g } per piece
oven-oven-side-cooled-loss = Cooled, it has lost { $best } % ({ $low }–{ $high } %) and is { $moisture } % water. Formula, card, and label use this weight.
oven-oven-side-name-of-a-new-oven = name of a new oven
oven-oven-side-name-of-a-new-oven-2 = Name of a new oven
oven-oven-side-add = Add

## colour-strip

oven-colour-strip-color = Color
oven-colour-strip-pale-golden-burnt = pale · golden · burnt
oven-colour-strip-from = from { $ends }
oven-colour-strip-golden-min = golden { $null } min
oven-colour-strip-burnt = burnt
oven-colour-strip-edge-min = edge { $edge_min } min
oven-colour-strip-golden-from-to-min-burnt-at = Golden from { $from } to { $to } min; burnt at { $burnt_min } min

## depth-picture

oven-depth-picture-inside-the-dough = Inside the dough
oven-depth-picture-top-underside-blue-cold-brown-hot = top ↑ · { $at } · ↓ underside · blue = cold, brown = hot and dry
oven-depth-picture-at-min-below-the-top-about = at { $minute } min, { $row } below the top: about { $units }, { $gone } % of the water lost
oven-depth-picture-is-not-done = is not done
oven-depth-picture-reaches-when-it-is-done = reaches { $units } when it is done
oven-depth-picture-depth-over-time-the-center-dashed = Depth over time. The center { $middle }. Dashed line: half of the water lost.

## stage-strip

oven-stage-strip-stages-of-the-bake = Stages of the bake
oven-stage-strip-min = { $start_min } min
oven-stage-strip-degrees = { $name }: degrees
oven-stage-strip-fan = · fan
oven-stage-strip-minutes = { $name }: minutes
oven-stage-strip-until-done = until done
oven-stage-strip-add = add
oven-stage-strip-the-usual-stages = the usual stages

## oven-map-view

oven-oven-map-view-temperature-and-thickness-map = Temperature and thickness map
oven-oven-map-view-temperature-and-thickness = Temperature and thickness
oven-oven-map-view-what-a-bake-of = What a bake of
oven-oven-map-view-baking-time-for-this-map-min = Baking time for this map, min
oven-oven-map-view-min-400-simulated-bakes-calculated-in = min (400 simulated bakes, calculated in the background).
oven-oven-map-view-redraw = Redraw
oven-oven-map-view-draw-the-map = Draw the map
oven-oven-map-view-rows = rows
oven-oven-map-view-rows-thickness-columns-temperature = Rows: thickness. Columns: temperature.
oven-oven-map-view-your-current-settings = your current settings
oven-oven-map-view-oven-setting = oven setting, { $unit }
oven-oven-map-view-current-settings = current settings
oven-oven-map-view-tap-a-square-to-use-that = Tap a square to use that setting
oven-oven-map-view-dry-or-dark = dry or dark
oven-oven-map-view-ready-at = , ready at { $ready }
oven-oven-map-view-after-min = { $column }, { $thick }: { $becomes } after { $value } min{ $then }

## oven-advice

oven-oven-advice-what-if = What if…
oven-oven-advice-other-temperatures = Other temperatures
oven-oven-advice-not-done = not done
oven-oven-advice-min-then-min-until-too-dark = { $ready_min } min, then { $window_min } min until too dark
oven-oven-advice-suggested = · suggested
oven-oven-advice-greatest-thickness-that-bakes-in = Greatest thickness that bakes in
oven-oven-advice-baking-time-available-min = Baking time available, min
oven-oven-advice-not-possible-at-any-thickness = not possible at any thickness
oven-oven-advice-doneness-depends-on = Doneness depends on { $decides }. { $rests_on } { $sureness }

## oven-settings

oven-oven-settings-oil = Oil
oven-oven-settings-oven-setting = Oven setting
oven-oven-settings-actual-temperature = Actual temperature
oven-oven-settings-fan = Fan
oven-oven-settings-on = on
oven-oven-settings-off = off
oven-oven-settings-baked-on = Baked on
oven-oven-settings-as-usual = as usual
oven-oven-settings-trays-in-the-oven = Trays in the oven
oven-oven-settings-doneness = Doneness
oven-oven-settings-dough-temperature-going-in = Dough temperature going in
oven-oven-settings-as-mixed = as mixed
oven-oven-settings-altitude = Altitude
