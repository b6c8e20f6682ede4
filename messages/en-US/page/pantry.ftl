### The page: pantry.

## label-form

pantry-label-form-label-as-printed = Label as printed
pantry-label-form-label-style = Label style
pantry-label-form-united-states = United States
pantry-label-form-european = European
pantry-label-form-carbohydrate-includes-fiber = carbohydrate includes fiber
pantry-label-form-carbohydrate-excludes-fiber = carbohydrate excludes fiber
pantry-label-form-values-are-for = Values are for
pantry-label-form-grams-the-values-are-for = Grams the values are for
pantry-label-form-serving-size-on-the-pack = Serving size on the pack
pantry-label-form-2-tbsp = 2 tbsp

## ingredient-view

pantry-ingredient-view-ingredient = Ingredient
pantry-ingredient-view-add-a-pack-of-this-ingredient = Add a pack of this ingredient
pantry-ingredient-view-in-100-g = { $grams } in 100 g
pantry-ingredient-view-packs-earliest-use-by-first = Packs, earliest use-by first
pantry-ingredient-view-composition-per-100-g = Composition per 100 g
pantry-ingredient-view-function-in-dough = Function in dough
pantry-ingredient-view-measures = Measures
pantry-ingredient-view-also-called = also called { $aliases }

## pantry-bar

pantry-pantry-bar-ingredients-and-packs = Ingredients and packs
pantry-pantry-bar-stock = Stock
pantry-pantry-bar-import = Import
pantry-pantry-bar-new-pack = New pack

## import-start

pantry-import-start-drop-a-product-file-here = Drop a product file here
pantry-import-start-csv-with-any-column-headers-or = CSV with any column headers, or JSON with clear keys: name, serving size, protein (g), price… Up to 20,000 products or 8 MB. Nothing is saved until you confirm.
pantry-import-start-choose-a-file = Choose a file
pantry-import-start-or-paste-rows-from-a-spreadsheet = … or paste rows from a spreadsheet
pantry-import-start-rows-of-products = Rows of products
pantry-import-start-read-file = Read file

## pack-more

pantry-pack-more-price-and-measurements = Price and measurements
pantry-pack-more-price-of-a-pack = price of a pack
pantry-pack-more-net-weight = net weight
pantry-pack-more-on-hand = on hand
pantry-pack-more-use-by = use by
pantry-pack-more-bought-on = bought on
pantry-pack-more-usable = usable
pantry-pack-more-your-own-measurements = Your own measurements
pantry-pack-more-a-cup-weighs = a cup weighs
pantry-pack-more-a-tablespoon = a tablespoon
pantry-pack-more-water-absorption = Water absorption
pantry-pack-more-colour = colour
pantry-pack-more-blond-dark = blond, dark
pantry-pack-more-certified-on-the-pack = Certified on the pack
pantry-pack-more-nothing = nothing
pantry-pack-more-ingredient-list-on-the-pack = ingredient list on the pack
pantry-pack-more-notes = notes
pantry-pack-more-also-contains = Also contains
pantry-pack-more-may-contain-traces-of = May contain traces of

## import-columns

pantry-import-columns-labels-are = Labels are
pantry-import-columns-the-file-does-not-say-which = The file does not say which: choose one.
pantry-import-columns-united-states-carbohydrate-includes-fiber = United States: carbohydrate includes fiber
pantry-import-columns-european-carbohydrate-excludes-fiber = European: carbohydrate excludes fiber
pantry-import-columns-values-are = Values are
pantry-import-columns-per-100-g = per 100 g
pantry-import-columns-per-serving-serving-size-in-a = per serving (serving size in a column)
pantry-import-columns-row = row
pantry-import-columns-read-as = read as
pantry-import-columns-is = is
pantry-import-columns-column-is = Column { $headers } is
pantry-import-columns-left-out = left out
pantry-import-columns-pack-weight = pack weight
pantry-import-columns-use-by = use by
pantry-import-columns-bought-on = bought on
pantry-import-columns-may-contain = may contain

## pack-meaning

pantry-pack-meaning-what-the-label-means = What the label means
pantry-pack-meaning-switch-label-style = Switch label style
pantry-pack-meaning-correct-it = Correct it
pantry-pack-meaning-the-label-makes-sense-the-calories = The label makes sense: the calories add up, its parts fit, and it is typical of { $split }.
pantry-pack-meaning-no-label-entered-yet-all-values = No label entered yet. All values come from the reference.
pantry-pack-meaning-g-net-carbs = g net carbs
pantry-pack-meaning-against = against { $net_carbs }
pantry-pack-meaning-of-the-reference-in-100-g = of the reference, in 100 g
pantry-pack-meaning-absorbs-g-water-per-g = absorbs { $capacity } g water per g ({ $high })
pantry-pack-meaning-binds-like-eggs-per-100-g = · binds like { $binding } eggs per 100 g
pantry-pack-meaning-a-cup-weighs-g = · a cup weighs { $g_per_cup } g
pantry-pack-meaning-per-100-g-used = · { $price_100g } { $currency } per 100 g used
pantry-pack-meaning-per-100-g-bracket-range-allowed = Per 100 g. Bracket: range allowed by rounding on the label. Mark: most likely value. Shaded: reference range.
pantry-pack-meaning-water = Water
pantry-pack-meaning-protein = Protein
pantry-pack-meaning-fat = Fat
pantry-pack-meaning-saturated-fat = Saturated fat
pantry-pack-meaning-total-carbohydrate = Total carbohydrate
pantry-pack-meaning-fiber = Fiber
pantry-pack-meaning-sugars = Sugars
pantry-pack-meaning-erythritol = Erythritol
pantry-pack-meaning-other-polyols = Other polyols
pantry-pack-meaning-allulose = Allulose
pantry-pack-meaning-sodium = Sodium
pantry-pack-meaning-impossible = Impossible:
pantry-pack-meaning-check = Check:
pantry-pack-meaning-note = Note:

## compare-view

pantry-compare-view-side-by-side = Side by side
pantry-compare-view-add-another = Add another
pantry-compare-view-select-ingredients-in-the-pantry-to = Select ingredients in the pantry to compare them, or add one above.
pantry-compare-view-some-of-these-ingredients-are-not = Some of these ingredients are not in this pantry.
pantry-compare-view-start-again = Start again
pantry-compare-view-100-g-of-each-drawn-to = 100 g of each, drawn to one scale
pantry-compare-view-reference = reference
pantry-compare-view-remove = Remove { $name }
pantry-compare-view-remove-2 = remove
pantry-compare-view-water-absorption-g-g = Water absorption, g/g
pantry-compare-view-binds-eggs-100-g = binds, eggs / 100 g
pantry-compare-view-source = source
pantry-compare-view-net-carbs-by-the-method-absorption = Net carbs by the { $convention } method. Absorption and binding are our own scales with wide ranges: use them to compare ingredients, not as exact values.
pantry-compare-view-net-carbs = net carbs
pantry-compare-view-kcal = { $energy_kcal } kcal
pantry-compare-view-a-cup-weighs = a cup weighs
pantry-compare-view-price-per-100-g-used = Price per 100 g used
pantry-compare-view-price-of-100-g-protein = price of 100 g protein
pantry-compare-view-price-per-100-g-water-absorbed = Price per 100 g water absorbed
pantry-compare-view-price-per-egg-of-binding = Price per egg of binding

## stock-view

pantry-stock-view-stock = Stock
pantry-stock-view-on-hand = On hand
pantry-stock-view-earliest-use-by-first = Earliest use-by first
pantry-stock-view-on-hand-2 = on hand, { $unit }
pantry-stock-view-chart-on-hand-and-reserved = Chart: on hand and reserved
pantry-stock-view-reserved = reserved
pantry-stock-view-free = free
pantry-stock-view-use-by = use by
pantry-stock-view-grams = grams
pantry-stock-view-ounces = ounces
pantry-stock-view-on-hand-3 = { $name }, { $unit } on hand
pantry-stock-view-past = past
pantry-stock-view-nothing-on-hand-put-a-pack = Nothing on hand. Put a pack into the pantry, or count one on its page.
pantry-stock-view-the-stock-could-not-be-loaded = The stock could not be loaded. Try again.
pantry-stock-view-try-again = Try again
pantry-stock-view-bakes = Bakes
pantry-stock-view-planned-bakes = Planned bakes
pantry-stock-view-formula = Formula
pantry-stock-view-choose-a-formula = Choose a formula
pantry-stock-view-batches = batches
pantry-stock-view-on = on
pantry-stock-view-plan = Plan
pantry-stock-view-missing-from-stock = { $grams } { $unit } { $split } missing from stock
pantry-stock-view-mark-as-baked-and-deduct-stock = Mark as baked and deduct stock
pantry-stock-view-cancel = Cancel
pantry-stock-view-the-formula = the formula
pantry-stock-view-no-planned-bakes-a-planned-bake = No planned bakes. A planned bake reserves ingredients from your packs, oldest first.
pantry-stock-view-over = Over
pantry-stock-view-on-hand-4 = { $name }: { $grams } on hand.
pantry-stock-view-bake-planned-ingredients-reserved = Bake planned. Ingredients reserved.
pantry-stock-view-ingredients-deducted-from-stock = { $name }: ingredients deducted from stock.
pantry-stock-view-canceled-reserved-ingredients-are-availabl = { $name } canceled. Reserved ingredients are available again.

## import-view

pantry-import-view-import-packs = Import packs
pantry-import-view-start-again = Start again
pantry-import-view-products = { $total } products, { $kind }
pantry-import-view-reviewed = reviewed
pantry-import-view-imported = imported
pantry-import-view-ready-to-import = ready to import
pantry-import-view-of-these-have-a-label-to = of these have a label to check
pantry-import-view-cannot = cannot.
pantry-import-view-review-all = Review all { $total }
pantry-import-view-import-valid-rows = Import { $good } valid rows
pantry-import-view-cancel-import = Cancel import
pantry-import-view-packs-imported = Packs imported: { $good }
pantry-import-view-show-packs = Show packs
pantry-import-view-stopped-nothing-was-imported = Stopped; nothing was imported.
pantry-import-view-rows-that-cannot-be-read = Rows that cannot be read
pantry-import-view-row = row { $number }
pantry-import-view-and-more = and { $good } more

## pantry-rows

pantry-pantry-rows-a-hundred-grams = { $currency } / 100 g
pantry-pantry-rows-compare = Compare
pantry-pantry-rows-in-100-g = in 100 g
pantry-pantry-rows-net-carbs = net carbs
pantry-pantry-rows-protein = protein
pantry-pantry-rows-grams-of-water-absorbed-by-1 = grams of water absorbed by 1 g
pantry-pantry-rows-absorbs-g-g = absorbs, g/g
pantry-pantry-rows-whole-egg-equivalents-in-100-g = whole-egg equivalents in 100 g
pantry-pantry-rows-binds-eggs = binds, eggs
pantry-pantry-rows-on-hand = on hand
pantry-pantry-rows-use-by = use by
pantry-pantry-rows-compare-2 = Compare { $name }
pantry-pantry-rows-label = { $trouble } label
pantry-pantry-rows-oz = oz
pantry-pantry-rows-label-cannot-be-right = label cannot be right
pantry-pantry-rows-look-at-the-label-again = look at the label again

## figure-band

pantry-figure-band-reference-to = reference { $low } to { $high } { $unit }
pantry-figure-band-from-the-reference = from the reference
pantry-figure-band-what-is-left-of-100-g = what is left of 100 g

## pantry-list

pantry-pantry-list-pantry = Pantry
pantry-pantry-list-search-ingredients-and-packs = Search ingredients and packs
pantry-pantry-list-search-the-pantry = Search the pantry
pantry-pantry-list-role = Role
pantry-pantry-list-all-roles = all roles
pantry-pantry-list-without = Without
pantry-pantry-list-packs-only = packs only
pantry-pantry-list-archived = archived
pantry-pantry-list-compare = Compare { $keys }
pantry-pantry-list-none = none
pantry-pantry-list-select-up-to-six-to-compare = Select up to six to compare
pantry-pantry-list-the-pantry-could-not-be-loaded = The pantry could not be loaded. Try again.
pantry-pantry-list-try-again = Try again
pantry-pantry-list-loading = Loading
pantry-pantry-list-the-archive-is-empty = The archive is empty.
pantry-pantry-list-no-results = No results.
pantry-pantry-list-a-pack-is-what-you-bought = A pack is what you bought: its label, price and date. Start with “New pack”, or import a file.
pantry-pantry-list-type-part-of-the-name-or = Type part of the name, or remove a filter.
pantry-pantry-list-your-packs = Your packs · { $packs }
pantry-pantry-list-reference = Reference · { $references }
pantry-pantry-list-any-allergen = any allergen
pantry-pantry-list-without-tree-nuts = without tree nuts
pantry-pantry-list-without-milk = without milk
pantry-pantry-list-without-egg = without egg
pantry-pantry-list-without-coconut = without coconut
pantry-pantry-list-without-legumes = without legumes
pantry-pantry-list-without-sesame = without sesame
pantry-pantry-list-without-grain = without grain
pantry-pantry-list-without-soy = without soy
pantry-pantry-list-without-nightshades = without nightshades

## pack-view

pantry-pack-view-pack = Pack
pantry-pack-view-new-pack = New pack
pantry-pack-view-back-to-pantry = Back to pantry
pantry-pack-view-loading = Loading
pantry-pack-view-name-your-own = Name (your own)
pantry-pack-view-brand-and-kind = Brand and kind
pantry-pack-view-it-is-a-pack-of = it is a pack of
pantry-pack-view-almond-flour = almond flour …
pantry-pack-view-it-is-a-pack-of-2 = It is a pack of
pantry-pack-view-paste-a-nutrition-panel-from-the = Paste a nutrition panel from the clipboard
pantry-pack-view-ctrl-v = Ctrl V
pantry-pack-view-label-price-and-uses = Label, price, and uses
pantry-pack-view-on-hand = on hand { $on_hand_g } { $unit }
pantry-pack-view-reserved = , { $reserved_g } reserved
pantry-pack-view-archived = archived
pantry-pack-view-export = Export
pantry-pack-view-restore = Restore
pantry-pack-view-archive = Archive
pantry-pack-view-ctrl-enter = Ctrl Enter
pantry-pack-view-save = Save
pantry-pack-view-add-to-the-pantry = Add to the pantry
pantry-pack-view-name-the-pack-and-choose-its = Name the pack and choose its ingredient. The label is checked here as you type.
pantry-pack-view-used-in = Used in
pantry-pack-view-no-formula-uses-this-pack-yet = No formula uses this pack yet. To use it, open a formula and choose the pack next to the ingredient.
pantry-pack-view-is-in-the-pantry = { $name } is in the pantry.
pantry-pack-view-pack-archived-formulas-that-use-it = Pack archived. Formulas that use it keep their values.
pantry-pack-view-pack-restored = Pack restored.
pantry-pack-view-undo = Undo
pantry-pack-view-label-style-switched = Label style switched.
pantry-pack-view-values-read = { $figures } values read.
pantry-pack-view-copy-the-panel-then-press-ctrl = Copy the panel, then press Ctrl V here.
