### Reformulation.

## balancing

balancing-every-target-into-range = { $count ->
        [one] 1 change brings
       *[other] { $count } changes bring
    } every target into range.
balancing-the-best-certainty-found-is = The best certainty found is { $ten }, with all other limits met.
balancing-psyllium-replaces-the-gluten-in = Psyllium replaces the gluten in this dough. Without it, start from another formula.
balancing-the-number-of-pieces = the number of pieces
balancing-the-thickness = the thickness
balancing-no-dough-to-balance-yet = No dough to balance yet. Add ingredients or start from a shape.
balancing-all-ingredients-are-locked-unlock = All ingredients are locked. Unlock at least one.
balancing-that-would-leave-no-flour = That would leave no flour, and no other flour is allowed. Start from another formula.
balancing-is-of-this-dough-and = { $name } is { QUANTITY($had) } of this dough and gives it its structure. Without it, start from another formula.
balancing-not-all-targets-can-be = Not all targets can be met. This is the closest result.
balancing-closest-result = Closest result: { $missed }.
balancing-use-a-wider-loaf-pan = use a wider loaf pan, or less dough
balancing-at-c = { $target_class } at { QUANTITY($temperature) }
balancing-add-the-label-of-your = Add the label of your own { $name } pack: { QUANTITY($share) } of the uncertainty comes from this ingredient.
balancing-all-targets-are-already-met = All targets are already met.
balancing-after-min-of-rest = { $target_class } after { QUANTITY($minutes) } of rest
balancing-right-after-mixing-without-a = { $target_class } right after mixing, without a rest
balancing-would-work = { $shape_name } would work

## infeasibility

infeasibility-set-it-to = set it to { $amount }
infeasibility-set-it-to-2 = set it to { QUANTITY($would) }
infeasibility-set-it-to-min = set it to { $would } min
infeasibility-not-enough-by-itself = not enough by itself
infeasibility-remove-this-limit = remove this limit
infeasibility-allow-a-softer-or-stiffer = allow a softer or stiffer dough

## line_sweep

line-sweep-parts = { $short }: { $ranges }.
line-sweep-all-targets-stay-met-within = { $short }: all targets stay met within ± { QUANTITY($span) }.
line-sweep-stays-in-range-from-to = { $short }: { $low } stays in range from { QUANTITY($low_2) } to { QUANTITY($high_2) }.
line-sweep-out-of-range-below-g = { $low } out of range below { QUANTITY($low_2) }
line-sweep-out-of-range-above-g = { $high } out of range above { QUANTITY($high_2) }

## pareto

pareto-as-it-stands = as it stands

## piece_changes

piece-changes-g-each = , { QUANTITY($dough) } each
piece-changes-pieces-instead-of = { $after } pieces instead of { $before }{ $each }

## quick_fix_search

quick-fix-search-smaller-pieces = { $needed } smaller pieces
quick-fix-search-dry-the-vegetable-first-salt = Dry the vegetable first: salt or heat it, and squeeze it
quick-fix-search-as-in-the-saved-version = ; { $again }, as in the saved version
quick-fix-search-too-much-juice = too much juice

## alternatives

alternatives-the-pieces-as-they-are = the pieces as they are
alternatives-without-touching-the = without touching the { $removed }
alternatives-another-option = another option
alternatives-least-change = least change
alternatives-no-new-ingredients = no new ingredients
alternatives-fewest-new-ingredients = fewest new ingredients

## side_effects

side-effects-without-the-bread-loses = Without { $exclusion_name }, the bread loses { $lost }.
side-effects-half-the-weight = half the weight
side-effects-a-quarter-of-the-weight = a quarter of the weight and more egg or water
side-effects-nut-flour-to-coconut-flour = Nut flour to coconut flour is { QUANTITY($ratio) } : 1, close to the common rule of { $near }. Coconut flour absorbs about four times as much.
side-effects-adds-the-allergen = Adds the allergen { $name }.
side-effects-add-a-little-lemon-juice = Add a little lemon juice: sunflower flour can turn green with baking soda or powder. This is harmless.
side-effects-drink-plenty-of-liquid-with = Drink plenty of liquid with it: psyllium swells.

## solution

solution-there-is-no-dough = there is no dough
solution-the-dough-is-at-shaping = the dough is { $class_name } at shaping
solution-it-crumbles = it crumbles
solution-it-cracks-before-it-can = it cracks before it can be shaped
solution-baking-takes-min = baking takes { QUANTITY($value) }
solution-it-is-mm-thick = it is { QUANTITY($thickness) } thick
solution-still-contains = still contains { $name }
solution-more-than-recommended = more { $name } than recommended
solution-parts = { $name } { QUANTITY($get) }
solution-baking-soda-without-enough-acid = baking soda without enough acid
solution-more-fat-than-the-dough = more fat than the dough can hold
solution-parts-2 = { $quantity_text } { $amount }

## solution_text

solution-text-total-carbs = total carbs
solution-text-parts = { $sign } { QUANTITY($moved) } { $name }{ $count }
solution-text-at-least-half-of-the = at least half of the { $slot_name }
solution-text-at-shaping = { $lowest } at shaping
solution-text-no = no { $name } (− { QUANTITY($start) })
solution-text-to = { $text }, to { QUANTITY($now) }
solution-text-parts-2 = {" "}({ $whole ->
        [one] 1 egg
       *[other] { $whole } eggs
    })
solution-text-at-least = at least
solution-text-at-most = at most
solution-text-parts-3 = { $quantity_text } { $side } { $amount }
solution-text-at-shaping-2 = { $handling } at shaping
solution-text-the-weight-of-the-dough = the weight of the dough
solution-text-enough-moisture-to-hold-together = enough moisture to hold together
solution-text-baked-within-min = baked within { QUANTITY($limit) }
solution-text-at-most-of-the-dough = { $name } at most { QUANTITY($limit) } of the dough
solution-text-parts-4 = { $name } { $side } { QUANTITY($limit) }

## target_probability

target-probability-nearly-always = nearly always
target-probability-times-in = { $share } times in 10
target-probability-hardly-ever = hardly ever
target-probability-the-other-targets-leave-no = The other targets leave no room for { $word } { $quantity_text }.
target-probability-would-take-g-more-change = { $amount } { $word } { $quantity_text } would take { QUANTITY($cost) } more change.
target-probability-the-target-of-is-met = The target of { $quantity_text } is met { $ten }.
target-probability-met = met { $ten }

## starter_formula

starter-formula-as-it-is = as it is
starter-formula-on = On { $base }: { $how }
