### The page: run.

## step-list

run-step-list-skipped = skipped
run-step-list-done = done
run-step-list-redo-step = { $word_of } · redo step

## run-head

run-run-head-progress = Progress
run-run-head-offline-entries-saved-on-this-device = Offline: { $waiting } entries saved on this device
run-run-head-sending-entries = Sending { $waiting } entries…
run-run-head-move-buttons-right = Move buttons right
run-run-head-move-buttons-left = Move buttons left
run-run-head-all-steps = All steps

## run-over

run-run-over-now = Now
run-run-over-all-steps-done = All steps done.
run-run-over-skipped = Skipped:
run-run-over-finish-and-rate = Finish and rate
run-run-over-you-are-offline-nothing-is-lost = You are offline. Nothing is lost; finish this bake when you are back online.

## run-home

run-run-home-bake = Bake: { $name }
run-run-home-bake-2 = Bake
run-run-home-bakes = Bakes
run-run-home-bakes-of-this-formula = Bakes of this formula
run-run-home-in-progress = In progress
run-run-home-not-rated-yet = · not rated yet
run-run-home-in-progress-2 = · in progress
run-run-home-batches = batches
run-run-home-batches-2 = Batches
run-run-home-start-a-bake = Start a bake
run-run-home-you-can-view-bakes-but-not = You can view bakes but not start one. Ask the kitchen owner.
run-run-home-find-a-formula = Find a formula
run-run-home-value = { $pieces ->
        [one] piece
       *[other] pieces
    }
run-run-home-try-again = Try again
run-run-home-formula-to-bake = Formula to bake
run-run-home-bakes-in-progress = Bakes in progress

## number-pad

run-number-pad-delete-last-digit = Delete last digit

## feel-step

run-feel-step-wanted = Wanted:
run-feel-step-to = { $from } to { $to }
run-feel-step-how-does-the-dough-feel = How does the dough feel?
run-feel-step-saved-you-are-offline-so-no = Saved. You are offline, so no advice is available. Go by feel.
run-feel-step-the-air-is-dry-today = The air is dry today
run-feel-step-so-far = ({ $bursts } so far)
run-feel-step-log-15-s-in-the-microwave = Log 15 s in the microwave{ $bursts }
run-feel-step-you-have-warmed-pieces-more-than = You have warmed pieces more than once. Too much warming makes the dough greasy.
run-feel-step-check-again = Check again

## weigh-step

run-weigh-step-of = { $bar } of { $target } { $unit }
run-weigh-step-simulated-scale = simulated scale
run-weigh-step-scale = scale
run-weigh-step-on-the = { $unit } on the { $simulated }{ $stable }
run-weigh-step-put-an-empty-bowl-on-the = Put an empty bowl on the scale.
run-weigh-step-skip-the-bowl = Skip the bowl
run-weigh-step-scale-overloaded-remove-some-weight = Scale overloaded. Remove some weight.
run-weigh-step-the-scale-is-silent-type-the = The scale is silent: type the weight.
run-weigh-step-pour-simulated-scale = Pour (simulated scale)
run-weigh-step-type-weights = Type weights
run-weigh-step-use-the-scale = use the scale
run-weigh-step-tare = tare
run-weigh-step-one-bowl-for-all = One bowl for all
run-weigh-step-separate-bowls = Separate bowls
run-weigh-step-disconnect = Disconnect
run-weigh-step-connect-a-usb-scale = Connect a USB scale
run-weigh-step-connect-a-bluetooth-scale = Connect a Bluetooth scale
run-weigh-step-ok-to-no-noticeable-difference = OK: { $low } to { $high } { $unit } (no noticeable difference)
run-weigh-step-i-used-this-measure = I used this measure
run-weigh-step-filled-by = filled by
run-weigh-step-filled-by-2 = Filled by
run-weigh-step-then-weighed-so-the-app-learns = then weighed, so the app learns what your cup holds
run-weigh-step-adjusted-from-in-the-formula = adjusted from { $grams } { $unit } in the formula
run-weigh-step-weighed = weighed: { $known } { $unit }
run-weigh-step-exact = exact
run-weigh-step-over = over
run-weigh-step-short = short
run-weigh-step-weight-of = Weight of { $step }, { $unit }
run-weigh-step-a-new-pack-kept = a new pack: kept
run-weigh-step-opened-a-new-pack = Opened a new pack
run-weigh-step-substitute-used-such-as-small-eggs = Substitute used, such as small eggs…
run-weigh-step-substitute-for = Substitute for { $step }
run-weigh-step-keep = Keep
run-weigh-step-keep-this-weight = Keep this weight

## run-view

run-run-view-back-to-bakes = Back to bakes
run-run-view-now = Now
run-run-view-since-mixing = · { $since_mixed } since mixing
run-run-view-min = { $step } min
run-run-view-to = { $low_g } to { $high_g }
run-run-view-add-a-note-such-as-dark = Add a note, such as dark husk or small eggs…
run-run-view-a-note = A note
run-run-view-next = next
run-run-view-back = Back
run-run-view-skip = Skip
run-run-view-stop-timer = Stop timer
run-run-view-start-timer = Start timer
run-run-view-weighed = Weighed
run-run-view-in-the-oven = In the oven
run-run-view-out-of-the-oven = Out of the oven
run-run-view-done = Done

## live-bake

run-live-bake-in-the-oven-for-min = In the oven for { $minute } min.
run-live-bake-core = core
run-live-bake-oven = oven
run-live-bake-simulated-nobody-measured-this-and-nothing = simulated: nobody measured this, and nothing is learned from it
run-live-bake-as-forecast = as forecast
run-live-bake-updated-with-your-readings = updated with your readings
run-live-bake-min = min
run-live-bake-the-times-above-use-simulated-readings = The times above use simulated readings.
run-live-bake-one-reading-does-not-match-the = One reading does not match the others, so it has little weight.
run-live-bake-weight = weight
run-live-bake-weight-now = Weight now, { $unit }
run-live-bake-core-temperature-now = Core temperature now, { $unit }
run-live-bake-oven-thermometer = oven thermometer
run-live-bake-oven-temperature-now = Oven temperature now, { $unit }
run-live-bake-color-now = Color now
run-live-bake-weigh-the-batch-before-baking-and = Weigh the batch before baking and once during baking. This improves the forecast most.
run-live-bake-far-too-pale = far too pale
run-live-bake-as-set = as set
run-live-bake-far-too-dark = far too dark

## timer-strip

run-timer-strip-timers = Timers
run-timer-strip-check-in = check in { $now }
run-timer-strip-add-5-min-to = Add 5 min to { $name }
run-timer-strip-5-more = 5 more
run-timer-strip-stop = Stop { $name }
run-timer-strip-stop-2 = Stop
