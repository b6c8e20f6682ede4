### Publishing.

## variants

variants-g = { QUANTITY($as_poured) } { $small }
variants-with = {" "}with { $lines }
variants-as-they-are = {" "}as they are
variants-adds-g-net-carbs-per = ; adds { QUANTITY($more) } net carbs per piece
variants-and-more = {" "}and { $changes } more
variants-g-net-carbs-each = { QUANTITY($pieces) } ×{ $additions }; { QUANTITY($net_carbs) } net carbs each.
variants-mixed-into-the-dry-ingredients = { $words }, mixed into the dry ingredients{ $carbs }.
