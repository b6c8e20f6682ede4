### The page: frame.

## keys-sheet

frame-keys-sheet-keyboard-shortcuts = Keyboard shortcuts
frame-keys-sheet-keys = Keys
frame-keys-sheet-close = Close
frame-keys-sheet-ctrl-k = Ctrl K
frame-keys-sheet-search-or-run-a-command = search or run a command
frame-keys-sheet-search-for-an-ingredient-or-for = search for an ingredient, or for a formula in the list
frame-keys-sheet-in-an-amount = ↑ ↓ in an amount
frame-keys-sheet-one-step-more-or-less-shift = one step more or less; Shift for ten steps
frame-keys-sheet-enter-in-an-amount = Enter in an amount
frame-keys-sheet-the-next-ingredient = the next ingredient
frame-keys-sheet-alt-alt = Alt ↑ Alt ↓
frame-keys-sheet-move-the-ingredient = move the ingredient
frame-keys-sheet-ctrl-z-ctrl-shift-z = Ctrl Z, Ctrl Shift Z
frame-keys-sheet-undo-redo = undo, redo
frame-keys-sheet-balance-the-formula-to-its-targets = balance the formula to its targets
frame-keys-sheet-exclude-an-ingredient = exclude an ingredient
frame-keys-sheet-space-t-backspace = Space, t, Backspace
frame-keys-sheet-during-a-bake-finish-the-step = during a bake: finish the step, start or stop the timer, go back one step
frame-keys-sheet-compare-an-older-or-newer-version = compare an older or newer version with the one before it
frame-keys-sheet-show-these-shortcuts-on-a-figure = show these shortcuts; on a figure: explain it

## formula-menu

frame-formula-menu-more-actions = More actions

## head-strip

frame-head-strip-undo = Undo
frame-head-strip-undo-ctrl-z = Undo (Ctrl Z)
frame-head-strip-redo = Redo
frame-head-strip-redo-ctrl-shift-z = Redo (Ctrl Shift Z)
frame-head-strip-units-change-units = Units: { $units_shown }. Change units
frame-head-strip-search-or-run-a-command = Search or run a command
frame-head-strip-search-or-command = Search or command…
frame-head-strip-ctrl-k = Ctrl K

## outage-banner

frame-outage-banner-no-connection-to-the-server-your = No connection to the server. Your changes are saved on this device and will be sent when it is back.
frame-outage-banner-trying-again-in-s = Trying again in { $left } s.
frame-outage-banner-looking = Looking …
frame-outage-banner-try-again = Try again

## command-box

frame-command-box-search-or-run-a-command = Search or run a command
frame-command-box-search-for-a-formula-or-ingredient = Search for a formula or ingredient, or run a command
frame-command-box-search-results = Search results
frame-command-box-nothing-found-with-that-name = Nothing found with that name.
frame-command-box-undo = Undo
frame-command-box-all-formulas = All formulas
frame-command-box-open-formulas-list-new-paste-archive = open formulas list new paste archive import file delete
frame-command-box-export-all-formulas-and-packs = Export all formulas and packs
frame-command-box-save-download-kitchen-file-backup = save download kitchen file backup
frame-command-box-import-packs-into-the-pantry = Import packs into the pantry
frame-command-box-csv-file-packs = csv file packs
frame-command-box-compare-ingredients = Compare ingredients
frame-command-box-side-by-side = side by side
frame-command-box-light-theme = Light theme
frame-command-box-dark-theme = Dark theme
frame-command-box-kitchen-members = Kitchen members
frame-command-box-invite-add-member-role-history-leave = invite add member role history leave delete
frame-command-box-your-account = Your account
frame-command-box-password-email-two-step-verification-passk = password email two-step verification passkey browsers sign out delete account
frame-command-box-keyboard-shortcuts = Keyboard shortcuts
frame-command-box-help-shortcuts-keyboard = help shortcuts keyboard
frame-command-box-add = Add { $name }

## formula-head

frame-formula-head-name-of-the-formula = Name of the formula
frame-formula-head-new = new
frame-formula-head-value = { $pieces ->
        [one] piece
       *[other] pieces
    }
frame-formula-head-shape = Shape
frame-formula-head-pieces = pieces
frame-formula-head-pieces-per-serving = pieces per serving
frame-formula-head-saved-on-this-device-not-synced = saved on this device, not synced yet
frame-formula-head-not-saved = not saved
frame-formula-head-conflicting-drafts = conflicting drafts

## job-progress

frame-job-progress-waiting-to-start = waiting to start
frame-job-progress-of = { $done } of { $total } { $what }
frame-job-progress-cancel = Cancel

## kitchen-menu

frame-kitchen-menu-kitchen = Kitchen: { $name }
frame-kitchen-menu-go-to = go to { $name }
frame-kitchen-menu-net-carbs-method = Net carbs method
frame-kitchen-menu-other-sugar-alcohols = Other sugar alcohols
frame-kitchen-menu-cups-and-spoons = Cups and spoons
frame-kitchen-menu-egg-sizes = Egg sizes
frame-kitchen-menu-currency-of-prices = Currency of prices
frame-kitchen-menu-scale-and-thermometers = Scale and thermometers
frame-kitchen-menu-strict-rules = Strict rules
frame-kitchen-menu-nut-free-also-excludes-coconut = Nut-free also excludes coconut
frame-kitchen-menu-as-some-schools-do = as some schools do
frame-kitchen-menu-grain-free-also-excludes-xanthan-gum = Grain-free also excludes xanthan gum
frame-kitchen-menu-xanthan-gum-is-often-grown-on = xanthan gum is often grown on corn or wheat sugar
frame-kitchen-menu-a-low-salt-kitchen = a low-salt kitchen
frame-kitchen-menu-no-warnings-about-low-salt = no warnings about low salt
frame-kitchen-menu-net-carbs-has-no-legal-definition = “Net carbs” has no legal definition in the US, and “low carb” is not an authorized claim in the US or the EU.
frame-kitchen-menu-and-history = and history
frame-kitchen-menu-members = Members{ $may }
frame-kitchen-menu-your-account = Your account
frame-kitchen-menu-light-theme = Light theme
frame-kitchen-menu-dark-theme-for-early-mornings = Dark theme, for early mornings
frame-kitchen-menu-keys = Keys
frame-kitchen-menu-sign-out = Sign out
frame-kitchen-menu-you-could-not-be-signed-out = You could not be signed out. Try again.

## formula-picker

frame-formula-picker-formula-picker = formula picker

## formula-frame

frame-formula-frame-back-to-formulas = Back to formulas
frame-formula-frame-targets = Targets
frame-formula-frame-close = Close
frame-formula-frame-outside = { $outside } outside

## kitchen-eaters

frame-kitchen-eaters-daily-limits = Daily limits
frame-kitchen-eaters-nobody = nobody
frame-kitchen-eaters-name = Name
frame-kitchen-eaters-remove = remove
frame-kitchen-eaters-add-an-eater = Add an eater
frame-kitchen-eaters-daily-amounts-that-you-set-yourself = Daily amounts that you set yourself. This is not medical advice.
frame-kitchen-eaters-eater = Eater { $eaters }

## toast-stack

frame-toast-stack-dismiss = Dismiss

## station-rail

frame-station-rail-stations = Stations
frame-station-rail-substrata-all-formulas = Substrata: all formulas

## more-rows

frame-more-rows-more = { $left } more

## pack-choice

frame-pack-choice-taken-from = Taken from
frame-pack-choice-reference-values-no-pack = Reference values (no pack)
frame-pack-choice-by = by { $use_by }
frame-pack-choice-add-a-pack = Add a pack
frame-pack-choice-packs-of = packs of

## line-row

frame-line-row-press-alt-and-an-arrow-key = { $name }: { $role }. Press Alt and an arrow key to move it
frame-line-row-drag-to-reorder = Drag to reorder
frame-line-row-as-measured = { $name }, as measured
frame-line-row-1-1-2-cup = 1 1/2 cup
frame-line-row-weighs = { $name }, weighs
frame-line-row-likely-9-in-10 = likely (9 in 10) { $grams_low }–{ $grams_high } { $unit }
frame-line-row-lock = Lock { $name }
frame-line-row-remove = Remove { $name }
frame-line-row-unknown-ingredient = unknown ingredient
frame-line-row-a-pack-of-another-kitchen = a pack of another kitchen
frame-line-row-removed = { $value } removed.
frame-line-row-restore = Restore

## role-menu

frame-role-menu-show-what-if-more-or-less = Show what if more or less
frame-role-menu-replace-ingredient = Replace ingredient
frame-role-menu-blend-the-ingredients = Blend the { $role } ingredients
frame-role-menu-role = Role
frame-role-menu-treatment = Treatment
frame-role-menu-for-example-riced-and-squeezed = for example: riced and squeezed
frame-role-menu-note = Note
frame-role-menu-softened = softened

## add-line

frame-add-line-how-much-80-2-tbsp = How much { $split }? 80, 2 tbsp …
frame-add-line-add-an-ingredient-30-g-psyllium = Add an ingredient, “30 g psyllium”, or paste a whole list
frame-add-line-add-an-ingredient = Add an ingredient
frame-add-line-use-your-packs-for-all-ingredients = use your packs for all ingredients, earliest use-by date first
frame-add-line-use-my-packs = use my packs
frame-add-line-paste-a-list = paste a list
frame-add-line-nothing-is-called-press-one-of = Nothing is called “{ $search }”. Press one of these, or write another name.
frame-add-line-ingredients = Ingredients
frame-add-line-ingredients-typed = ingredients typed
frame-add-line-your-packs = { $count } { $count ->
        [one] ingredient now uses
       *[other] ingredients now use
    } your packs.
frame-add-line-nothing-changed-none-of-these-ingredients = Nothing changed: none of these ingredients has a pack in your pantry. To add one, go to Pantry > New pack.
frame-add-line-undo = Undo

## line-table

frame-line-table-ingredients = Ingredients
frame-line-table-role = Role
frame-line-table-ingredient = Ingredient
frame-line-table-as-entered = as entered
frame-line-table-weighs = weighs
frame-line-table-bakers-percent-share-of-the-dry = baker's percent: share of the dry base (flours, fibers, and binders)
frame-line-table-bakers = baker's %
frame-line-table-lock = lock
frame-line-table-remove = Remove

## balance-panel

frame-balance-panel-targets = Targets
frame-balance-panel-fewer = fewer

## bracket-panel

frame-bracket-panel-balance-formula = Balance formula
frame-bracket-panel-higher-with-lower-with = Higher with { $raised_by }. Lower with { $lowered_by }.
frame-bracket-panel-likely-range-9-in-10 = Likely range (9 in 10): { $bracket } { $unit } · { $confidence }
frame-bracket-panel-sources-of-this-value = Sources of this value
frame-bracket-panel-uncertainty = uncertainty
frame-bracket-panel-from = from
frame-bracket-panel-open = open
frame-bracket-panel-to = to
frame-bracket-panel-usual-range = usual range
frame-bracket-panel-if-you-change-nothing-else-this = If you change nothing else, this can range from { $low } to { $high }.
frame-bracket-panel-your-target = your target
frame-bracket-panel-usual-range-for-this-shape = usual range for this shape
frame-bracket-panel-usual-range-of-such-a-dough = usual range of such a dough
frame-bracket-panel-no-target = no target

## cheaper-hints

frame-cheaper-hints-not-compared-because-no-price-is = Not compared because no price is set: { $unpriced }.
frame-cheaper-hints-use-this-pack = Use this pack
frame-cheaper-hints-no-cheaper-pack-in-your-pantry = No cheaper pack in your pantry can replace these.

## claim-strip

frame-claim-strip-allergens-and-claims = Allergens and claims
frame-claim-strip-allergens = Allergens
frame-claim-strip-traces = traces:
frame-claim-strip-no-listed-allergens-in-these-ingredients = No listed allergens in these ingredients
frame-claim-strip-claims = Claims
frame-claim-strip-remove = Remove { $name }
frame-claim-strip-united-states-list = United States list
frame-claim-strip-european-list = European list
frame-claim-strip-needs-certified-packs = needs certified packs
frame-claim-strip-not-allowed = not allowed

## mend-list

frame-mend-list-balance-and-quick-fixes = Balance and quick fixes
frame-mend-list-balance-formula = Balance formula
frame-mend-list-quick-fixes = Quick fixes
frame-mend-list-fixes-everything = fixes everything

## eater-strip

frame-eater-strip-daily-limits = Daily limits
frame-eater-strip-any = any
frame-eater-strip-value = { $pieces ->
        [one] piece
       *[other] pieces
    }
frame-eater-strip-of = { $amount } of { $a_day } { $unit }

## composition-bar

frame-composition-bar-of-100-g = of 100 g: { $value }

## core-column

frame-core-column-dough-layers = Dough layers
frame-core-column-boundary = { $name }, boundary
frame-core-column-your-first-ingredient-becomes-the-first = Your first ingredient becomes the first layer.
frame-core-column-of-it-dough = , { $dough_g } of it dough
frame-core-column-dough = dough
frame-core-column-water-fill = · water fill { $fill } %
frame-core-column-drag-a-boundary-to-change-the = Drag a boundary to change the grams. Hold Shift to keep the total weight.

## app

frame-app-skip = Skip
frame-app-skip-to-content = Skip to content
frame-app-add-an-ingredient = Add an ingredient

## sign-in

frame-sign-in-substrata = Substrata
frame-sign-in-grain-free-doughs-weighed-and-balanced = Grain-free doughs, weighed and balanced before they are baked.
frame-sign-in-your-address = your address
frame-sign-in-we-sent-a-code-to-enter = We sent a code to { $email }. Enter it here.
frame-sign-in-we-will-email-you-a-code = We will email you a code to reset your password.
frame-sign-in-enter-the-code-from-the-email = Enter the code from the email and a new password.
frame-sign-in-enter-the-code-from-your-authenticator = Enter the code from your authenticator app, or a recovery code.
frame-sign-in-e-mail = E-mail
frame-sign-in-code = Code
frame-sign-in-new-password = New password
frame-sign-in-password = Password
frame-sign-in-use-at-least-10-characters-do = Use at least 10 characters. Do not use your email address or a common password.
frame-sign-in-sign-in-with-a-passkey = Sign in with a passkey
frame-sign-in-resend-code = Resend code
frame-sign-in-create-account = Create account
frame-sign-in-forgot-your-password = Forgot your password?
frame-sign-in-sign-in-instead = Sign in instead
frame-sign-in-back-to-sign-in = Back to sign-in
frame-sign-in-emails-on-this-computer-no-mail = Emails on this computer (no mail server set up)
frame-sign-in-sign-in = Sign in
frame-sign-in-confirm-email-address = Confirm email address
frame-sign-in-send-code = Send code
frame-sign-in-set-new-password = Set new password
frame-sign-in-a-new-code-is-on-its = A new code is on its way.

## station-shelf

frame-station-shelf-choose-a-formula = { $word }: choose a formula
frame-station-shelf-this-step-covers = This step covers { $decides }.
frame-station-shelf-find-a-formula = Find a formula
frame-station-shelf-value = { $pieces ->
        [one] piece
       *[other] pieces
    }
frame-station-shelf-try-again = Try again
frame-station-shelf-no-formula-found = No formula found.
frame-station-shelf-formulas-of-a-station = formulas of a station

## nowhere-view

frame-nowhere-view-page-not-found = Page not found
frame-nowhere-view-go-to-formulas = Go to formulas

## settle

frame-settle-taken = { $count } { $count ->
        [one] edit
       *[other] edits
    } taken.
frame-settle-undo = Undo
frame-settle-the-suggested-changes-are-now-in = The suggested changes are now in your formula.

## bench

frame-bench-new-formula = New formula

## account

frame-account-the-server-cannot-be-reached-try = The server cannot be reached. Try again in a moment.
frame-account-too-many-attempts-wait-a-few = Too many attempts. Wait a few minutes, then try again.
frame-account-your-session-has-expired-start-again = Your session has expired. Start again.
frame-account-something-went-wrong-try-again = Something went wrong. Try again.
frame-account-the-passkey-was-not-used = The passkey was not used.

## client

frame-client-allowed = allowed: { $allowed }
frame-client-the-server-cannot-be-reached = the server cannot be reached
frame-client-your-changes-are-saved-on-this = your changes are saved on this device and will be sent when the connection is back
frame-client-something-went-wrong = something went wrong

## policy

frame-policy-something-went-wrong-try-again = Something went wrong. Try again.

## use-ask

frame-use-ask-something-went-wrong-try-again = Something went wrong. Try again.

## use-copy-and-archive

frame-use-copy-and-archive-archived = { $name } archived.
frame-use-copy-and-archive-is-back-among-the-formulas = { $name } is back among the formulas.
frame-use-copy-and-archive-undo = Undo

## use-document-files

frame-use-document-files-is-too-large-to-be-read = { $name } is too large to be read.
frame-use-document-files-is-not-a-substrata-formula-file = { $name } is not a Substrata formula file (*.substrata.json).
frame-use-document-files-with = with { $packs_added } { $packs_added ->
        [one] pack
       *[other] packs
    }
frame-use-document-files-formulas = { $many } formulas
frame-use-document-files-imported = { $what }{ $packs } imported.
frame-use-document-files-open = Open

## use-formula-actions

frame-use-formula-actions-versions = Versions
frame-use-formula-actions-history-compare-side-by-side = history compare side by side
frame-use-formula-actions-export = Export
frame-use-formula-actions-save-download-file-keep-share = save download file keep share
frame-use-formula-actions-export-with-version-history = Export with version history
frame-use-formula-actions-save-download-file = save download file
frame-use-formula-actions-print-the-card = Print the card
frame-use-formula-actions-balance-formula = Balance formula
frame-use-formula-actions-balance-settle-solve-targets-fix-repair = balance settle solve targets fix repair
frame-use-formula-actions-exclude-an-ingredient = Exclude an ingredient
frame-use-formula-actions-swap-replace-without-free = swap replace without free
frame-use-formula-actions-trade-offs = Trade-offs
frame-use-formula-actions-trade-off-front = trade-off front
frame-use-formula-actions-scale = Scale
frame-use-formula-actions-double-half-batch-pieces-multiply-more = double half batch pieces multiply more less
frame-use-formula-actions-sub-recipes-and-varieties = Sub-recipes and varieties
frame-use-formula-actions-filling-sauce-premix-sub-recipe-part = filling sauce premix sub-recipe part sort variety several fillings toppings
frame-use-formula-actions-paste-an-ingredient-list = Paste an ingredient list
frame-use-formula-actions-add-lines-recipe = add lines recipe
frame-use-formula-actions-copy = Copy
frame-use-formula-actions-duplicate-fork-another = duplicate fork another
frame-use-formula-actions-restore-from-archive = Restore from archive
frame-use-formula-actions-archive = Archive
frame-use-formula-actions-delete-remove-put-away = delete remove put away

## use-job

frame-use-job-got = got { $got }

## use-open-formula

frame-use-open-formula-the-formula-could-not-be-opened = The formula could not be opened.

## use-own-scale

frame-use-own-scale-the-scale-is-unplugged-plug-it = The scale is unplugged. Plug it in and choose it again, or type the weight.
frame-use-own-scale-the-scale-is-disconnected-move-closer = The scale is disconnected. Move closer and choose it again, or type the weight.
frame-use-own-scale-bluetooth-scale = Bluetooth scale
frame-use-own-scale-the-scale-does-not-respond-choose = The scale does not respond: { $message }. Choose it again, or type the weight.

## use-panels

frame-use-panels-that-text-is-too-long-million = That text is too long ({ $millions } million characters). Paste the ingredient list only. Nothing was changed.

## use-password-again

frame-use-password-again-wrong-password-try-again = Wrong password. Try again.

## use-timers

frame-use-timers-look = Look: { $name }
frame-use-timers-time-is-up = { $name }: time is up

## stations

frame-stations-pantry = Pantry
frame-stations-which-flour-cheese-fiber-and-egg = which flour, cheese, fiber, and egg to use, and which pack
frame-stations-formulas = Formulas
frame-stations-how-much-of-each = how much of each
frame-stations-prep = Prep
frame-stations-how-to-dry-the-vegetable-melt = how to dry the vegetable, melt the cheese, warm the water
frame-stations-shape = Shape
frame-stations-thickness-size-number-and-pan = thickness, size, number and pan
frame-stations-oven = Oven
frame-stations-temperature-stages-rack-and-fan = temperature, stages, rack and fan
frame-stations-bake = Bake
frame-stations-step-by-step-baking-with-timers = step-by-step baking with timers, scale, and probe
frame-stations-results = Results
frame-stations-rate-the-bake-find-the-cause = rate the bake, find the cause, choose the next change
frame-stations-plan = Plan
frame-stations-several-bakes-in-one-oven-each = several bakes in one oven, each ready on time
frame-stations-card = Card
frame-stations-the-recipe-card-nutrition-panels-and = the recipe card, nutrition panels, and allergens

## format

frame-format-days-ago = { $days } days ago
frame-format-sq-in = { $cm2 } sq in
