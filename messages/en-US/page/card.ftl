### The page: card.

## card-out

card-card-out-as = as
card-card-out-file-format = File format
card-card-out-download = Download
card-card-out-anyone-with-this-link-can-view = Anyone with this link can view the latest saved version:
card-card-out-copy = Copy
card-card-out-stop-sharing = Stop sharing
card-card-out-create-a-share-link = Create a share link
card-card-out-plain-text = plain text
card-card-out-markdown = Markdown
card-card-out-excel-workbook-xlsx = Excel workbook (XLSX)
card-card-out-layer-diagram-png = Layer diagram (PNG)
card-card-out-link-copied = Link copied.
card-card-out-copying-is-blocked-in-this-browser = Copying is blocked in this browser. Select the link and copy it.

## bag-sheet

card-bag-sheet-bags-one-batch-each = bags, one batch each
card-bag-sheet-made-on = made on
card-bag-sheet-label-width-mm = label width, mm
card-bag-sheet-label-height-mm = label height, mm
card-bag-sheet-download-labels-pdf = Download labels (PDF)
card-bag-sheet-use-by-date-based-on = Use-by date based on { $why_use_by }.
card-bag-sheet-added-ingredients-contain = Added ingredients contain { $to_add_allergens }.
card-bag-sheet-in-the-bag = In the bag
card-bag-sheet-one-bag = one bag
card-bag-sheet-value = { $bags ->
        [one] bag
       *[other] bags
    }
card-bag-sheet-together = together
card-bag-sheet-premix-bags = premix bags

## recipe-sheet

card-recipe-sheet-net-carbs = { $net_carbs } net carbs
card-recipe-sheet-per-piece = per piece
card-recipe-sheet-a-spoon-is-not-accurate-enough = A spoon is not accurate enough here: weigh this ingredient
card-recipe-sheet-weigh-it = weigh it
card-recipe-sheet-variations = Variations
card-recipe-sheet-storage = Storage
card-recipe-sheet-method = Method
card-recipe-sheet-step = Step: { $title }
card-recipe-sheet-save = Save
card-recipe-sheet-hide-step = Hide step
card-recipe-sheet-reset-to-computed-text = Reset to computed text
card-recipe-sheet-cancel = Cancel
card-recipe-sheet-rewrite = Rewrite: { $title }
card-recipe-sheet-the-numbers-changed-since-you-edited = The numbers changed since you edited this step. Now: { $computed }
card-recipe-sheet-use-new-text = Use new text
card-recipe-sheet-left-out = { $left } { $left ->
        [one] step is
       *[other] steps are
    } left out.
card-recipe-sheet-show-hidden-steps = Show hidden steps

## label-sheet

card-label-sheet-business = business
card-label-sheet-address = address
card-label-sheet-pieces-in-a-pack = pieces in a pack
card-label-sheet-baked-on = baked on
card-label-sheet-lot = lot
card-label-sheet-width-mm = width, mm
card-label-sheet-height-mm = height, mm
card-label-sheet-download-label-pdf = Download label (PDF)
card-label-sheet-ingredients = Ingredients:
card-label-sheet-the-nutrition-panel-for-this-region = The nutrition panel for this region is printed below the label.
card-label-sheet-still-needed-before-you-can-sell = Still needed before you can sell this

## card-view

card-card-view-card-section = Card section
card-card-view-batches = Batches
card-card-view-batches-2 = batches
card-card-view-sort = sort
card-card-view-variety = Variety
card-card-view-all-varieties = All varieties
card-card-view-region = Region
card-card-view-united-states = United States
card-card-view-european-union = European Union
card-card-view-show-how-rounding-could-differ = show how rounding could differ
card-card-view-print = Print
card-card-view-of-about-baked = { $form } · { $pieces } { $pieces ->
        [one] piece
       *[other] pieces
    } of about { $piece_g } baked
card-card-view-g-net-carbs = { $estimate } g net carbs
card-card-view-per-piece = per piece
card-card-view-missing-from-these-figures-fix-in = { $problems } { $problems ->
        [one] ingredient is
       *[other] ingredients are
    } missing from these figures. Fix { $problems ->
        [one] it
       *[other] them
    } in the formula first.
card-card-view-ingredients = Ingredients
card-card-view-shown-with-typical-sub-ingredients-enter = Shown with typical sub-ingredients: { $to_read }. Enter the ingredient list from your pack on its Pantry page.
card-card-view-allergens = Allergens
card-card-view-may-contain = may contain
card-card-view-none-of-the-listed-allergens = None of the listed allergens
card-card-view-claims-you-can-make = Claims you can make
card-card-view-no-claims-possible-without-more-certified = No claims possible without more certified packs
card-card-view-cautions = Cautions
card-card-view-recipe = Recipe
card-card-view-panel-and-allergens = Panel and allergens
card-card-view-pack-label = Pack label
card-card-view-premix-bags = Premix bags

## panel-sheet

card-panel-sheet-serving-size = Serving size
card-panel-sheet-figure = figure
card-panel-sheet-daily-value = % Daily Value
