### The page: plan.

## plan-clock

plan-plan-clock-schedule = Schedule
plan-plan-clock-check-from-out-by-at-the = · check from { $check }, out by { $surely } at the latest

## plan-task

plan-plan-task-check-from-out-by-at-the = · check from { $check }, out by { $surely } at the latest
plan-plan-task-can-start-up-to-min-late = · can start up to { $slack } min late
plan-plan-task-unpin = Unpin
plan-plan-task-pin-to-this-time = Pin to this time
plan-plan-task-it-took-5-min-longer = It took 5 min longer
plan-plan-task-it-took-12-min-longer = It took 12 min longer
plan-plan-task-reset-and-plan-again = Reset and plan again

## plan-week

plan-plan-week-week-overview = Week overview
plan-plan-week-to = { $task }, { $start } to { $end }

## plan-lanes

plan-plan-lanes-day-timeline = Day timeline
plan-plan-lanes-hands = hands { $person }
plan-plan-lanes-people = people
plan-plan-lanes-no-conflicts = · no conflicts
plan-plan-lanes-check-from-out-by-at-the = , check from { $check }, out by { $surely } at the latest
plan-plan-lanes-pinned = , pinned
plan-plan-lanes-to = { $text }, { $start } to { $end }{ $look }{ $pinned }

## plan-view

plan-plan-view-plan-again = Plan again
plan-plan-view-plan = Plan
plan-plan-view-shopping-list = Shopping list
plan-plan-view-download-calendar = Download calendar
plan-plan-view-csv = CSV
plan-plan-view-csv-list-of-bakes-and-deadlines = CSV list of bakes and deadlines that you can import again
plan-plan-view-download-bake-list = Download bake list
plan-plan-view-json = JSON
plan-plan-view-all-plans = All plans
plan-plan-view-still-improving = · still improving
plan-plan-view-changed-since-it-was-planned-plan = · Changed since it was planned: { $changed }. Plan it again.
plan-plan-view-outdated-plan-again-after-your-last = · outdated: plan again after your last change
plan-plan-view-looking-for-a-first-plan = Looking for a first plan …
plan-plan-view-not-planned-yet-press-plan = Not planned yet. Press “Plan”.
plan-plan-view-hundredths-of-its-time = hundredths of its time
plan-plan-view-view = View
plan-plan-view-as-lanes = As lanes
plan-plan-view-tap-a-block-to-see-its = Tap a block to see its times. Drag it to pin it. The dark strip under a bake shows when to check it.
plan-plan-view-least-time-to-spare = Least time to spare: { $tight }.
plan-plan-view-calendar-link-anyone-with-it-can = Calendar link (anyone with it can view the plan):
plan-plan-view-stop-sharing = Stop sharing
plan-plan-view-create-a-calendar-link = Create a calendar link
plan-plan-view-delete-this-plan = Delete this plan

## plan-helps

plan-plan-helps-add-a-person = Add a person
plan-plan-helps-add-a-tray = Add a tray
plan-plan-helps-leave-it-out = Leave it out

## plans-home

plan-plans-home-plan = Plan
plan-plans-home-plans = Plans
plan-plans-home-value = { $bakes ->
        [one] bake
       *[other] bakes
    }
plan-plans-home-no-plans-yet-choose-formulas-to = No plans yet. Choose formulas to bake and when each must be ready.
plan-plans-home-try-again = Try again
plan-plans-home-past-plans = Past plans
plan-plans-home-new-plan = New plan
plan-plans-home-ready-by = ready by
plan-plans-home-work-begins-no-earlier-than = work begins no earlier than
plan-plans-home-find-a-formula = find a formula
plan-plans-home-find-a-formula-2 = Find a formula
plan-plans-home-from-a-list-csv = From a list (CSV)
plan-plans-home-a-list-of-bakes = A list of bakes
plan-plans-home-formula-ready-batches-fresh-h = formula, ready, batches, fresh_h
plan-plans-home-no-formula-with-this-name-check = No formula with this name: { $unknown }. Check the spelling.
plan-plans-home-plan-2 = Plan { $shown } { $count ->
        [one] bake
       *[other] bakes
    }
plan-plans-home-shelf-for-plans = shelf for plans
plan-plans-home-ovens-for-plans = ovens for plans

## shopping-view

plan-shopping-view-shopping-list = Shopping list
plan-shopping-view-copy = Copy
plan-shopping-view-csv = CSV
plan-shopping-view-release-reserved-stock = Release reserved stock
plan-shopping-view-reserve-stock = Reserve stock
plan-shopping-view-back-to-plan = Back to plan
plan-shopping-view-to-buy-in-the-cart = { $buy } to buy, { $ticked } in the cart
plan-shopping-view-about-priced-items-only = · about { $price } { $currency } (priced items only)
plan-shopping-view-by = , by { $by }
plan-shopping-view-for-g = for { $short_g } g
plan-shopping-view-already-in-stock = { $there } already in stock
plan-shopping-view-g-of-g = { $name }, { $needed_g } g of { $on_hand_g } g
plan-shopping-view-you-have-everything = You have everything.
plan-shopping-view-list-copied = List copied.
plan-shopping-view-copying-is-blocked-in-this-browser = Copying is blocked in this browser. Select the list and copy it.

## plan-setting

plan-plan-setting-bakes-and-deadlines = Bakes and deadlines
plan-plan-setting-remove = Remove { $bake }
plan-plan-setting-is-to-be-ready-at = { $bake } is to be ready at
plan-plan-setting-batches-of = Batches of { $bake }
plan-plan-setting-value = { $batches ->
        [one] batch
       *[other] batches
    }
plan-plan-setting-maximum-hours-between-baking-and-serving = Maximum hours between baking and serving
plan-plan-setting-baked-at-most = baked at most
plan-plan-setting-any = any
plan-plan-setting-maximum-hours-between-baking-and-serving-2 = { $bake }: maximum hours between baking and serving
plan-plan-setting-h-before = h before
plan-plan-setting-ready = ready { $ready }
plan-plan-setting-min-late = · { $late_min } min late
plan-plan-setting-value-2 = { $trays ->
        [one] tray
       *[other] trays
    }
plan-plan-setting-add-a-bake = Add a bake
plan-plan-setting-add-a-formula = add a formula
plan-plan-setting-kitchen-resources = Kitchen resources
plan-plan-setting-people = people
plan-plan-setting-trays-in = trays in { $name }
plan-plan-setting-add-oven = Add oven
plan-plan-setting-other-equipment = Other equipment
plan-plan-setting-enough = enough
plan-plan-setting-start-no-earlier-than = Start no earlier than
plan-plan-setting-no-work-from-22-00-to = No work from 22:00 to 6:00
plan-plan-setting-shelf-for-plans = shelf for plans

## use-plan-lanes

plan-use-plan-lanes-resting-or-cooling = resting or cooling
