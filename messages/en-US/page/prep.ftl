### The page: prep.

## prep-view

prep-prep-view-before-mixing = Before mixing
prep-prep-view-left-out-fix-in-the-formula = { $problems } { $problems ->
        [one] ingredient is
       *[other] ingredients are
    } left out. Fix { $problems ->
        [one] it
       *[other] them
    } in the formula.
prep-prep-view-nothing-to-prepare-yet-add-at = Nothing to prepare yet. Add at least two ingredients first.
prep-prep-view-back-to-the-formula = Back to the formula

## fat-list

prep-fat-list-well-below-its-smoke-point = well below its smoke point
prep-fat-list-near-its-smoke-point = near its smoke point

## premix-table

prep-premix-table-dry-ingredient = dry ingredient
prep-premix-table-one-batch = one batch
prep-premix-table-value = { $batches ->
        [one] batch
       *[other] batches
    }
prep-premix-table-on-the-scale = on the scale
prep-premix-table-on-the-scale-2 = { $name } on the scale, { $unit }

## yeast-chart

prep-yeast-chart-of-its-speed = % of its speed

## prep-inputs

prep-prep-inputs-number = number
prep-prep-inputs-as-usual = { $label }: as usual
prep-prep-inputs-as-usual-2 = as usual
prep-prep-inputs-to = { $low } to { $high } { $input }

## cooling-chart

prep-cooling-chart-minutes-on-the-bench = minutes on the bench
prep-cooling-chart-cooling-from-in-a-room = Cooling from { $start_c } in a { $room_c } room
prep-cooling-chart-cracks-below = cracks below
prep-cooling-chart-min = { $cooling } min

## burst-chart

prep-burst-chart-seconds-in-all = seconds in all
prep-burst-chart-after-s = after { $at } s { $value }
prep-burst-chart-bursts = Bursts: { $done }

## prep-task-view

prep-prep-task-view-thickening-over-time = thickening over time

## vegetable-chain

prep-vegetable-chain-including-water = { $act } { $grams }, including { $water_g } water
prep-vegetable-chain-minutes = { $act }: minutes
prep-vegetable-chain-watts = { $act }: watts
prep-vegetable-chain-salt = salt
prep-vegetable-chain-squeeze-number-of-times = squeeze: number of times
prep-vegetable-chain-times = times
prep-vegetable-chain-raw = raw
prep-vegetable-chain-raw-weight = Raw weight
prep-vegetable-chain-on-the-scale = on the scale
prep-vegetable-chain-weighed-after-drying = Weighed after drying
prep-vegetable-chain-as-forecast = as forecast
prep-vegetable-chain-the-juice-carries-away-g-sugars = The juice carries away { $sugars_lost_g } g sugars and { $potassium_lost_mg } mg potassium. The squeezed vegetable is { $water_percent } % water.
prep-vegetable-chain-drying-method = Drying method
prep-vegetable-chain-raw-needed = raw needed
prep-vegetable-chain-water-left = water left
prep-vegetable-chain-sugars-lost = sugars lost
prep-vegetable-chain-choose = choose
prep-vegetable-chain-use-this = Use this
prep-vegetable-chain-skip-drying = Skip drying
prep-vegetable-chain-steam = { $steam } steam
prep-vegetable-chain-juice = { $juice } juice

## water-thermometer

prep-water-thermometer-water-at-limit = Water at { $water_c }, limit { $limit_c }
prep-water-thermometer-limit = limit { $limit_c }

## changes-strip

prep-changes-strip-what-the-weight-changed = What the weight changed
prep-changes-strip-with-the-real-weight = With the real weight
prep-changes-strip-undo = Undo
prep-changes-strip-ok = OK

## gel-list

prep-gel-list-usual = { $percent } %; usual { $low_g }–{ $high_g }
