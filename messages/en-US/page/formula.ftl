### The page: formula.

## begin-view

formula-begin-view-new-formula-from-a-shape = New formula from a shape
formula-begin-view-what-do-you-want-to-bake = What do you want to bake, and which limits must it meet?
formula-begin-view-requirements = Requirements
formula-begin-view-shape = Shape
formula-begin-view-max-net-carbs-g-per-piece = Max net carbs, g per piece
formula-begin-view-as-usual = as usual
formula-begin-view-min-protein-g-per-piece = Min protein, g per piece
formula-begin-view-pieces = Pieces
formula-begin-view-without = Without
formula-begin-view-exclude = Exclude
formula-begin-view-nothing-excluded = nothing excluded
formula-begin-view-only-from-my-stock = only from my stock
formula-begin-view-suggest-formulas = Suggest formulas
formula-begin-view-balancing-a-few-formulas = Balancing a few formulas…
formula-begin-view-with-what-you-have-in-stock = with what you have in stock
formula-begin-view-with-all-of-that-excluded = with all of that excluded
formula-begin-view-none-of-our-starter-formulas-works = None of our starter formulas works { $stock }. Loosen a limit or choose another shape.
formula-begin-view-suggested-formulas = Suggested formulas
formula-begin-view-ingredient = ingredient
formula-begin-view-weight = weight
formula-begin-view-use-this-formula = Use this formula

## side-by-side

formula-side-by-side-no-differences = No differences.
formula-side-by-side-ingredient = ingredient
formula-side-by-side-all-versions = All versions

## settle-wish

formula-settle-wish-your-targets = Your targets
formula-settle-wish-exclude = Exclude
formula-settle-wish-exclude-nothing = exclude nothing
formula-settle-wish-without = without
formula-settle-wish-handling = Handling
formula-settle-wish-texture = Texture
formula-settle-wish-points-out-of-10 = Points out of 10
formula-settle-wish-any-time-in-the-oven = any time in the oven
formula-settle-wish-longest-baking-time-min = Longest baking time, min
formula-settle-wish-any-thickness = any thickness, { $unit }
formula-settle-wish-max-thickness = Max thickness, { $unit }
formula-settle-wish-targets = targets { $step }
formula-settle-wish-certainty = Certainty
formula-settle-wish-exact-grams = Exact grams
formula-settle-wish-allowed-to-change = Allowed to change
formula-settle-wish-ingredients = ingredients
formula-settle-wish-only-from-my-stock = only from my stock
formula-settle-wish-dough-weight = dough weight
formula-settle-wish-how-many-pieces = how many pieces
formula-settle-wish-how-thick = how thick
formula-settle-wish-handles-as-usual = handles as usual
formula-settle-wish-at-shaping = { $name } at shaping
formula-settle-wish-same-texture = same texture
formula-settle-wish-at-least = { $name } at least
formula-settle-wish-at-most = { $name } at most
formula-settle-wish-within-min = within { $minutes_most } min
formula-settle-wish-within-min-2 = within { $value } min
formula-settle-wish-at-most-2 = at most { $thickness_most } { $unit }

## paste-panel

formula-paste-panel-paste-a-list = Paste a list
formula-paste-panel-paste-a-recipe = Paste a recipe
formula-paste-panel-from-a-file = From a file
formula-paste-panel-back-to-ingredients = Back to ingredients
formula-paste-panel-ingredient-list = Ingredient list
formula-paste-panel-no-match-in-the-pantry-this = No match in the pantry. This text stays in the box.
formula-paste-panel-ignore = Ignore { $row }
formula-paste-panel-use = use
formula-paste-panel-ignore-2 = ignore
formula-paste-panel-add = Add { $shown } { $count ->
        [one] line
       *[other] lines
    }
formula-paste-panel-to-choose-text-you-skip-stays = { $left } to choose. Text you skip stays in the box.
formula-paste-panel-friday-rolls = Friday rolls
formula-paste-panel-1-1-2-cups-almond-flour = 1 1/2 cups almond flour
formula-paste-panel-2-t-psyllium-husk-powder = 2 T psyllium husk powder
formula-paste-panel-2-lg-eggs-2-whites = 2 lg eggs + 2 whites
formula-paste-panel-a-knob-of-butter = a knob of butter
formula-paste-panel-tsp-salt = ¼ tsp salt
formula-paste-panel-bake-at-400-f-for-15 = bake at 400 °F for 15 min
formula-paste-panel-not-imported = Not imported: { $unread }.
formula-paste-panel-an-ingredient-that-is-not-in = an ingredient that is not in the pantry
formula-paste-panel-name = name: { $name }
formula-paste-panel-pieces = { $pieces } pieces
formula-paste-panel-with-fan = with fan
formula-paste-panel-oven-at = oven at { $oven_c }{ $fan }
formula-paste-panel-min = { $minutes } min
formula-paste-panel-kept-as-a-note = kept as a note
formula-paste-panel-still-to-choose = , { $rest } still to choose
formula-paste-panel-added = { $count } { $count ->
        [one] line
       *[other] lines
    } added{ $rest }.
formula-paste-panel-undo = Undo

## handling-curve

formula-handling-curve-dough-handling = Dough handling
formula-handling-curve-over-time-or-temperature = Over time or temperature
formula-handling-curve-over-minutes = over minutes
formula-handling-curve-over = over { $unit }
formula-handling-curve-min = min
formula-handling-curve-mixed-at = mixed at
formula-handling-curve-temperature-after-mixing = Temperature after mixing
formula-handling-curve-as-usual = as usual
formula-handling-curve-melt-the-cheese-first-or-stir = melt the cheese first, or stir it in cold
formula-handling-curve-melted = melted
formula-handling-curve-cold = cold
formula-handling-curve-cheese = cheese { $melted }
formula-handling-curve-knead-or-press-it-or-only = knead or press it, or only stir it
formula-handling-curve-press-or-knead = press or knead
formula-handling-curve-stirred = stirred
formula-handling-curve-rests = rests
formula-handling-curve-rest-before-shaping-minutes-or-hours = Rest before shaping, minutes or hours
formula-handling-curve-where-it-rests = Where it rests
formula-handling-curve-shaped-at = shaped at { $shaped_c }
formula-handling-curve-chance-of-crumbling = · { $crumbly } chance of crumbling
formula-handling-curve-how-it-handles = How it handles: { $handling }
formula-handling-curve-min-2 = { $value } min
formula-handling-curve-cracks-below = cracks below
formula-handling-curve-too-stiff = too stiff
formula-handling-curve-likely-consistency-when-shaped-9-in = { $forecast } Likely consistency when shaped (9 in 10): { $low } to { $high }.

## front-panel

formula-front-panel-trade-offs = Trade-offs
formula-front-panel-back-to-ingredients = Back to ingredients
formula-front-panel-improve = Improve
formula-front-panel-at-the-cost-of = at the cost of
formula-front-panel-at-the-cost-of-2 = At the cost of
formula-front-panel-redraw = Redraw
formula-front-panel-draw-chart = Draw chart
formula-front-panel-points = points
formula-front-panel-no-formula-goes-further-without-giving = No formula goes further without giving up another target.
formula-front-panel-against = { $along } against { $across }
formula-front-panel-current = current
formula-front-panel-the-ring-is-your-current-formula = The ring is your current formula. Tap a point to see its changes.
formula-front-panel-apply-this-option = Apply this option
formula-front-panel-the-formula-has-changed-redraw-the = The formula has changed. Redraw the chart.
formula-front-panel-trade-off-applied = Trade-off applied.
formula-front-panel-undo = Undo

## settle-way

formula-settle-way-changes = Changes
formula-settle-way-apply-of = Apply { $ticked } of { $edits }
formula-settle-way-apply-all = Apply all
formula-settle-way-next-option = Next option
formula-settle-way-target-not-met = Target not met: { $text }.
formula-settle-way-effect = Effect
formula-settle-way-before = before
formula-settle-way-after = after
formula-settle-way-handling = Handling
formula-settle-way-of-10 = of 10
formula-settle-way-in-the-oven = In the oven
formula-settle-way-dough = Dough { $mass }.
formula-settle-way-limited-by = Limited by { $holds }.
formula-settle-way-preview-of-ticked-changes = preview of ticked changes
formula-settle-way-min = { $value } min

## settle-panel

formula-settle-panel-balance = Balance
formula-settle-panel-back-to-ingredients = Back to ingredients
formula-settle-panel-what-a-balance-keeps-by-itself = What a balance keeps by itself
formula-settle-panel-every-option-keeps-if-that-is = Every option keeps { $balance_keeps }. If that is impossible, you can switch a limit off.
formula-settle-panel-balance-again = Balance again
formula-settle-panel-balance-formula = Balance formula
formula-settle-panel-set-a-target-exclude-an-ingredient = Set a target, exclude an ingredient, or choose another handling or texture.
formula-settle-panel-the-formula-has-changed-balance-again = The formula has changed. Balance again.
formula-settle-panel-these-targets-conflict-change-any-one = These targets conflict. Change any one of them:
formula-settle-panel-for-example = For example: { $move }.
formula-settle-panel-options = Options
formula-settle-panel-start-over = Start over

## zeros-hidden

formula-zeros-hidden-amounts-hidden-by-rounding-to-0 = Amounts hidden by rounding to 0
formula-zeros-hidden-up-to-per-piece = up to, per piece
formula-zeros-hidden-per-g-can-be-up-to = { $name }: “{ $printed }” per { $per_g } g can be up to { $most_a_piece } { $unit } per piece

## parts-panel

formula-parts-panel-sub-recipes-and-varieties = Sub-recipes and varieties
formula-parts-panel-back-to-ingredients = Back to ingredients
formula-parts-panel-sub-recipes = Sub-recipes
formula-parts-panel-none-yet-you-can-add-another = None yet. You can add another formula (filling, sauce, premix) as an ingredient.
formula-parts-panel-draft = (draft)
formula-parts-panel-cooking-loss = cooking loss
formula-parts-panel-cooking-loss-of-percent = Cooking loss of { $name }, percent
formula-parts-panel-open-formula = Open formula
formula-parts-panel-version-is-available = Version { $newest } is available
formula-parts-panel-this-formula-has-changed = This formula has changed
formula-parts-panel-update = Update
formula-parts-panel-formula-to-add = Formula to add
formula-parts-panel-add-a-formula = Add a formula…
formula-parts-panel-as = as
formula-parts-panel-role = Role
formula-parts-panel-whole-batch = whole batch
formula-parts-panel-grams-to-use = Grams to use
formula-parts-panel-add-sub-recipe = Add sub-recipe
formula-parts-panel-varieties-from-this-dough = Varieties from this dough
formula-parts-panel-one-variety-only = One variety only.
formula-parts-panel-split-into-two-varieties = Split into two varieties
formula-parts-panel-sort = sort
formula-parts-panel-pieces = pieces
formula-parts-panel-per-piece = per piece
formula-parts-panel-net-carbs = net carbs
formula-parts-panel-protein = protein
formula-parts-panel-pieces-per-day = pieces per day
formula-parts-panel-allergens = allergens
formula-parts-panel-variety-name = Variety name
formula-parts-panel-pieces-of = Pieces of { $name }
formula-parts-panel-any = any
formula-parts-panel-remove = Remove { $name }
formula-parts-panel-which-variety-uses-each-ingredient = Which variety uses each ingredient?
formula-parts-panel-only-in = { $id } only in { $name }
formula-parts-panel-in-all = in all
formula-parts-panel-add-variety = Add variety
formula-parts-panel-shelf-for-parts = shelf for parts
formula-parts-panel-newer-parts = newer parts
formula-parts-panel-sort-2 = sort { $sorts }

## shelf-view

formula-shelf-view-archive = Archive
formula-shelf-view-formulas = Formulas
formula-shelf-view-find-a-formula = Find a formula
formula-shelf-view-shape = Shape
formula-shelf-view-back-to-the-formulas = Back to the formulas
formula-shelf-view-import = Import
formula-shelf-view-formula-files = Formula files
formula-shelf-view-all-formulas-with-their-versions-packs = all formulas with their versions, packs, ovens and choices in one file
formula-shelf-view-export-all = Export all
formula-shelf-view-start-from-a-shape = Start from a shape
formula-shelf-view-paste-a-list = Paste a list
formula-shelf-view-new-formula = New formula
formula-shelf-view-try-again = Try again
formula-shelf-view-loading = Loading
formula-shelf-view-no-formula-found = No formula found.
formula-shelf-view-the-archive-is-empty = The archive is empty.
formula-shelf-view-no-formulas-yet = No formulas yet.
formula-shelf-view-type-part-of-the-name-or = Type part of the name, or choose “All shapes”.
formula-shelf-view-all-shapes = all shapes

## facts-table

formula-facts-table-nutrition = Nutrition
formula-facts-table-values-only = Values only
formula-facts-table-with-ranges = with ranges
formula-facts-table-figure = figure
formula-facts-table-the-dough-is-water-of-it = The dough is { $water_percent } % water ({ $free_g } { $unit } of it free), { $fat_percent } % fat, and { $protein_percent } % protein. Net carbs per piece by each method:
formula-facts-table-g-a-piece-weighs-about-baked = g. A piece weighs about { $grams } baked, by this shape's usual loss. Energy: { $energy_method }.
formula-facts-table-net-carbs = net carbs
formula-facts-table-total-carbohydrate = total carbohydrate
formula-facts-table-per-piece = per piece
formula-facts-table-pieces = { $eaten } pieces
formula-facts-table-100-g-dough = 100 g dough
formula-facts-table-100-g-baked = 100 g baked

## notice-list

formula-notice-list-notes-and-cautions = Notes and cautions
formula-notice-list-general-advice-only-follow-your-clinician = General advice only. Follow your clinician and your local food rules.
formula-notice-list-fix-these = Fix these
formula-notice-list-good-to-know = Good to know
formula-notice-list-cautions = Cautions

## what-if-panel

formula-what-if-panel-what-if = What if
formula-what-if-panel-of-one-ingredient = of one ingredient
formula-what-if-panel-what-if-more-or-less = What if: more or less { $name }
formula-what-if-panel-back-to-ingredients = Back to ingredients
formula-what-if-panel-stays-inside = stays inside
formula-what-if-panel-to = { $values } to { $at }
formula-what-if-panel-no-effect-on = No effect on { $still }.
formula-what-if-panel-left-right-the-line-marks-the = Left: { $grams }; right: { $at }. The line marks the current weight. Tap a curve to use the weight there.
formula-what-if-panel-handling = Handling:
formula-what-if-panel-to-2 = { $value }{ $name } to { $to }
formula-what-if-panel-in-the-oven = In the oven:
formula-what-if-panel-min-at = { $value }{ $null } min at { $grams }
formula-what-if-panel-what-if-2 = what if
formula-what-if-panel-out-of-range-below = out of range below { $leaves_low_g }
formula-what-if-panel-out-of-range-above = out of range above { $leaves_high_g }

## shelf-begin

formula-shelf-begin-begin = Begin
formula-shelf-begin-your-kitchen-has-no-formulas-yet = Your kitchen has no formulas yet
formula-shelf-begin-copy-a-starter-formula-paste-a = Copy a starter formula, paste a recipe, start with a blank formula, or import a file.
formula-shelf-begin-paste-a-recipe = Paste a recipe
formula-shelf-begin-start-from-a-shape = Start from a shape
formula-shelf-begin-start-with-a-blank-formula = Start with a blank formula
formula-shelf-begin-import-a-file = Import a file
formula-shelf-begin-value = { $pieces ->
        [one] piece
       *[other] pieces
    }
formula-shelf-begin-house-formulas = house formulas

## shelf-card

formula-shelf-card-value = { $pieces ->
        [one] piece
       *[other] pieces
    }
formula-shelf-card-g-net = g net ({ $convention })
formula-shelf-card-g-protein = g protein
formula-shelf-card-draft = draft
formula-shelf-card-outside = · { $outside } outside
formula-shelf-card-not-read = · { $problems } not read
formula-shelf-card-copy = Copy
formula-shelf-card-restore = Restore
formula-shelf-card-archive = Archive

## proposal-banner

formula-proposal-banner-suggested-after-a-bake = Suggested after a bake
formula-proposal-banner-you-have-changed-since-that-bake = You have changed { $what } since that bake: { $present } would become { $proposed }.
formula-proposal-banner-apply = Apply
formula-proposal-banner-discard = Discard

## clash-banner

formula-clash-banner-saved-this-formula-while-you-were = { $who } saved this formula while you were editing.
formula-clash-banner-nothing-is-lost-your-version-is = Nothing is lost. Your version is on this device; theirs is saved.
formula-clash-banner-differences-yours-theirs = Differences, yours → theirs: { $differences }
formula-clash-banner-keep-mine = Keep mine
formula-clash-banner-use-theirs = Use theirs
formula-clash-banner-your-other-tab = Your other tab
formula-clash-banner-somebody = Somebody

## mix-panel

formula-mix-panel-blend = Blend
formula-mix-panel-blend-total = Blend: { $total } total
formula-mix-panel-back-to-ingredients = Back to ingredients
formula-mix-panel-move-one-slider-the-others-adjust = Move one slider. The others adjust so that the total stays the same.
formula-mix-panel-a-blend-needs-at-least-two = A blend needs at least two ingredients. Add another one.
formula-mix-panel-from-to = From { $from } to { $to }

## formula-notes

formula-formula-notes-notes = Notes
formula-formula-notes-notes-for-when-you-bake = Notes for when you bake

## texture-bars

formula-texture-bars-texture = Texture
formula-texture-bars-expected-texture = Expected texture
formula-texture-bars-out-of-10-likely-9-in = { $label }: { $value } out of 10, likely (9 in 10) { $low } to { $high }
formula-texture-bars-no-ingredient-contributes = no ingredient contributes
formula-texture-bars-target-for = Target for { $label }
formula-texture-bars-drag-to-set-a-target = Drag to set a target
formula-texture-bars-more = more
formula-texture-bars-less = less
formula-texture-bars-settle-for-or = Settle for { $aim } or { $direction }
formula-texture-bars-final-moisture = final moisture
formula-texture-bars-final-moisture-2 = Final moisture, %
formula-texture-bars-water = % water
formula-texture-bars-thickness = Thickness
formula-texture-bars-thick = thick
formula-texture-bars-as-usual = as usual
formula-texture-bars-take-it-out-when-each-piece = : take it out when each piece weighs { $bake_to_piece_g } (−{ $loss } %)
formula-texture-bars-loses-about-in-the-oven-see = : loses about { $loss } % ({ $low }–{ $high } %) by the time it is cool; see the Oven page for the weight to take it out at
formula-texture-bars-including-of-absorbed-frying-fat-in = , including { $fat_absorbed_g } of absorbed frying fat in the batch
formula-texture-bars-oven-built-in-estimates-until-your = ; oven { $oven_c }. Built-in estimates until your own bakes adjust them.
formula-texture-bars-as-you-set-it = As you set it
formula-texture-bars-dried-as-usual-for-this-shape = Dried, as usual for this shape
formula-texture-bars-usual-for-this-shape = Usual for this shape
formula-texture-bars-from-the-oven-forecast = From the oven forecast
formula-texture-bars-rule-of-thumb = rule of thumb
formula-texture-bars-a-hint = a hint

## versions-panel

formula-versions-panel-v = v{ $number }
formula-versions-panel-versions = Versions
formula-versions-panel-back-to-ingredients = Back to ingredients
formula-versions-panel-what-is-this-version-about = What is this version about?
formula-versions-panel-note-for-the-version = Note for the version
formula-versions-panel-save-version = Save version { $number }
formula-versions-panel-draft-since-v = Draft since v{ $base_number }:
formula-versions-panel-side-by-side = side by side
formula-versions-panel-no-note = no note
formula-versions-panel-compare-with-v = Compare with v{ $number }
formula-versions-panel-compare-with-draft = Compare with draft
formula-versions-panel-restore = restore
formula-versions-panel-no-version-saved-yet-a-saved = No version saved yet. A saved version never changes. You keep editing the draft.
formula-versions-panel-saved-as-version = Saved as version { $number }.
formula-versions-panel-the-draft-could-not-be-saved = The draft could not be saved yet, so no version was saved. Its note is still here.
formula-versions-panel-no-formula-is-open = no formula is open
formula-versions-panel-v-is-now-your-draft = v{ $number } is now your draft.
formula-versions-panel-undo = Undo

## scale-panel

formula-scale-panel-scale = Scale
formula-scale-panel-back-to-ingredients = Back to ingredients
formula-scale-panel-scale-by = Scale by
formula-scale-panel-ingredient = Ingredient
formula-scale-panel-keep-the-number-of-pieces-change = Keep the number of pieces; change their size
formula-scale-panel-type-what-you-have-3-eggs = Type what you have: 3 eggs, 250 g, 1 cup.
formula-scale-panel-this-formula-of-dough-of = { $factor } × this formula: { $dough_g } of dough, { $pieces } { $pieces ->
        [one] piece
       *[other] pieces
    } of { $piece_g }.
formula-scale-panel-ingredient-2 = ingredient
formula-scale-panel-now = now
formula-scale-panel-then = then
formula-scale-panel-as-measured = as measured
formula-scale-panel-apply-these-weights = Apply these weights
formula-scale-panel-times-as-much = times as much
formula-scale-panel-this-many-pieces = this many pieces
formula-scale-panel-pieces-of-this-weight = pieces of this weight
formula-scale-panel-what-i-have-of-one-ingredient = what I have of one ingredient
formula-scale-panel-scaled-by = Scaled by { $factor }.
formula-scale-panel-undo = Undo
