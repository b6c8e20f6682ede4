### The page: trials.

## trials-view

trials-trials-view-results = Results
trials-trials-view-what-we-learned = What we learned
trials-trials-view-compare = Compare{ $ticked }
trials-trials-view-from-a-file = From a file
trials-trials-view-csv = CSV
trials-trials-view-json = JSON
trials-trials-view-side-by-side = side by side
trials-trials-view-bake = bake
trials-trials-view-when = when
trials-trials-view-how-it-was = how it was
trials-trials-view-faults = faults
trials-trials-view-select-to-compare = Select { $name }, { $started_at }, to compare
trials-trials-view-draft = draft
trials-trials-view-left-out = · left out
trials-trials-view-no-results-yet-start-a-bake = No results yet. Start a bake on the Bake page, finish it, and rate it.
trials-trials-view-try-again = Try again
trials-trials-view-imported = { $runs } { $runs ->
        [one] bake
       *[other] bakes
    } imported.
trials-trials-view-all-bakes-in-this-file-are = All bakes in this file are already here.
trials-trials-view-this-file-is-not-json-choose = This file is not JSON. Choose an exported bake file.
trials-trials-view-not-rated-yet = not rated yet
trials-trials-view-in-progress = in progress

## learned-view

trials-learned-view-learned-from-your-bakes = Learned from your bakes
trials-learned-view-back-to-results = Back to results
trials-learned-view-reset-learning = Reset learning
trials-learned-view-include-older-bakes-again = Include older bakes again
trials-learned-view-learning-from-your-bakes = Learning from your bakes…
trials-learned-view-only-bakers-of-this-kitchen-can = Only bakers of this kitchen can update this.
trials-learned-view-bakes-before-are-not-used-for = Bakes before { $to_locale_date_string } are not used for learning. They stay in Results.
trials-learned-view-nothing-learned-yet-to-start-finish = Nothing learned yet. To start, finish a bake and enter its weight before and after, or rate it.
trials-learned-view-calculated-from-bakes-pale-bar-starting = Calculated from { $runs } bakes. Pale bar: starting assumption. Dark bar: now.
trials-learned-view-does-not-match-the-other-bakes = does not match the other bakes, so it has little weight.
trials-learned-view-use-in-forecasts = Use in forecasts
trials-learned-view-the-oven = The oven
trials-learned-view-from-weight-before-and-after-color = from weight before and after, color, core temperature, and oven thermometer
trials-learned-view-dough-feel = Dough feel
trials-learned-view-from-how-you-described-the-dough = from how you described the dough
trials-learned-view-palate = Palate
trials-learned-view-from-your-scores-at-the-measured = from your scores, at the measured moisture
trials-learned-view-cups-and-spoons = Cups and spoons
trials-learned-view-from-cups-and-spoons-that-you = from cups and spoons that you also weighed
trials-learned-view-your-habits = Your habits
trials-learned-view-from-your-bake-log = from your bake log

## trial-view

trials-trial-view-to-the-trials = To the trials
trials-trial-view-version = version { $number }
trials-trial-view-draft = draft
trials-trial-view-all-bakes-of-this-formula = All bakes of this formula
trials-trial-view-back = Back
trials-trial-view-edit-rating = Edit rating
trials-trial-view-use-for-learning = Use for learning
trials-trial-view-exclude-from-learning = Exclude from learning
trials-trial-view-rated = rated
trials-trial-view-color = · color: { $colour }
trials-trial-view-working-out-why = Working out why …

## why-panel

trials-why-panel-the-formula-as-written = The formula as written
trials-why-panel-no-likely-cause-in-the-formula = No likely cause in the formula.
trials-why-panel-in-how-it-was-made = In how it was made
trials-why-panel-evidence-against = Evidence against: { $value }
trials-why-panel-no-mistake-explains-these-faults = No mistake explains these faults.
trials-why-panel-answer-to-narrow-it-down = Answer to narrow it down
trials-why-panel-yes = Yes
trials-why-panel-no = No
trials-why-panel-quick-test-without-baking = Quick test without baking: { $text }.
trials-why-panel-what-to-try-next = What to try next
trials-why-panel-pale-bar-trouble-expected-if-you = Pale bar: trouble expected if you change nothing. Dark bar: trouble left after the change.
trials-why-panel-trouble-expected-of-now = Trouble expected: { $worst } of now
trials-why-panel-open-changed-formula = Open changed formula
trials-why-panel-this-bake-only = this bake only
trials-why-panel-a-habit = a habit
trials-why-panel-a-pack = a pack
trials-why-panel-the-oven = the oven

## verdict-form

trials-verdict-form-how-was-it = How was it?
trials-verdict-form-eaten = eaten
trials-verdict-form-hours-after-baking = Hours after baking
trials-verdict-form-hours-after-baking-2 = hours after baking
trials-verdict-form-color = Color
trials-verdict-form-or-add-a-photo = Or add a photo
trials-verdict-form-what-went-wrong = What went wrong: { $name }
trials-verdict-form-0-to-10-if-you-like = 0 to 10, if you like
trials-verdict-form-fewer = fewer
trials-verdict-form-more = more
trials-verdict-form-again = Again?
trials-verdict-form-keep-as-is = keep as is
trials-verdict-form-try-again = try again
trials-verdict-form-stop-making-it = stop making it
trials-verdict-form-a-note = A note
trials-verdict-form-save-rating = Save rating
trials-verdict-form-the-dough = the dough
trials-verdict-form-out-of-the-oven = out of the oven

## figure-line

trials-figure-line-value-over-time = Value over time
trials-figure-line-over-time = over time
trials-figure-line-value = Value
trials-figure-line-over-time-2 = { $label } over time
trials-figure-line-no-bake-has-recorded-this-yet = No bake has recorded this yet.
trials-figure-line-runs-line = runs line

## compare-runs

trials-compare-runs-side-by-side = Side by side
trials-compare-runs-back-to-results = Back to results
trials-compare-runs-show-unchanged-values = Show unchanged values
trials-compare-runs-figure = figure
trials-compare-runs-forecast = forecast { $to_precision }
trials-compare-runs-bakes-compared = Bakes compared
trials-compare-runs-batch-weights = Batch weights
trials-compare-runs-mixing-and-shaping = Mixing and shaping
trials-compare-runs-bake = Bake
trials-compare-runs-rating = Rating

## crust-photos

trials-crust-photos-lightness = L* { $lightness } ± { $error },
trials-crust-photos-photo = Photo
trials-crust-photos-even = even
trials-crust-photos-uneven = uneven
trials-crust-photos-delete = Delete
trials-crust-photos-reading-the-photo = Reading the photo…
trials-crust-photos-a-photo = A photo
trials-crust-photos-mark-the-paper = Mark the paper
trials-crust-photos-take-it-from-above-with-a = Take it from above, with a sheet of white paper next to the crust. No flash.
trials-crust-photos-tap-the = Tap the
trials-crust-photos-white-paper = white paper
trials-crust-photos-gray-card = gray card
trials-crust-photos-in-the-photo = in the photo.
trials-crust-photos-position-of-the = Position of the { $reference }
trials-crust-photos-this-photo-is-too-large-mb = This photo is too large ({ $megabytes } MB). The limit is { $most } MB.
