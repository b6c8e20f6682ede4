### Publishing.

## variants

variants-g = { QUANTITY($as_poured) } { $small }
variants-with = {" "}with { $lines }
variants-as-they-are = {" "}as they are
variants-adds-g-net-carbs-per = ; adds { QUANTITY($more) } net carbs per piece
variants-and-more = {" "}and { $changes } more
variants-g-net-carbs-each = { QUANTITY($pieces) } ×{ $additions }; { QUANTITY($net_carbs) } net carbs each.
variants-mixed-into-the-dry-ingredients = { $words }, mixed into the dry ingredients{ $carbs }.

## recipe

recipe-wet-ingredients = Wet ingredients
recipe-dry-ingredients = Dry ingredients
recipe-to-melt = To melt
recipe-vegetable-to-dry = Vegetable to dry
recipe-also-needed = Also needed
recipe-for-brushing = For brushing
recipe-for-dusting = For dusting
recipe-of-about-g = { QUANTITY($pieces) } { $single ->
        [yes] piece
       *[no] pieces
    } of about { QUANTITY($piece) }
recipe-g = { QUANTITY($estimate) }
recipe-per-piece = { QUANTITY($piece) } { $currency } per piece
recipe-incomplete-figures-allergens-and-method = Incomplete: { $without_weight }. Figures, allergens and method leave that out.
recipe-g-2 = { QUANTITY($poured) }

## premix

premix-bake-about-min-at = Bake about { QUANTITY($bake) } at { $oven }.
premix-keep-airtight-cool-and-dark = Keep airtight, cool and dark.
premix-parts = { $measure } ({ $amount })
premix-parts-2 = { $amount } { $name }
premix-parts-3 = { $text } ({ $warm })
premix-bake-as-described-in-the = Bake as described in the recipe.
premix-premix-for-g = Premix for { $recipe_name }, { QUANTITY($bag) }
premix-makes = Makes { $yields }.
premix-parts-4 = { $ingredient_name }: { $why }
premix-add = Add { $add }.
premix-nothing-to-add = Nothing to add.
premix-contains = Contains { $inside }.
premix-contains-none-of-the-listed = Contains none of the listed allergens.
premix-the-use-by-date-of = the use-by date of your { $ingredient_name } pack

## card panels

card-panels-not-low-carb = This is not low-carb: { QUANTITY($net) } of net carbs a piece.
