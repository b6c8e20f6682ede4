### Evaluation.

## analyse

analyse-not-enough-dough-to-forecast = Not enough dough to forecast handling.
analyse-no-dough-yet-add-ingredients = No dough yet. Add ingredients to see how it handles.
analyse-one-ingredient-is-not-a = One ingredient is not a dough yet. Add the other ingredients.
analyse-of-it-is = { QUANTITY($percent) } of it is { $cap_name }
analyse-in-of-doughs-the-handling = In 9 of 10 doughs, the handling is within this range

## dough_warnings

dough-warnings-it-crumbles = It crumbles
dough-warnings-too-stiff-to-shape = Too stiff to shape
dough-warnings-too-cool-to-shape = Too cool to shape
dough-warnings-too-soft-to-shape = Too soft to shape
dough-warnings-too-soft-to-shape-yet = Too soft to shape yet
dough-warnings-about-min = about { QUANTITY($minutes) }
dough-warnings-less-than-a-minute = less than a minute
dough-warnings-parts = { $text }: { $cause_text }.
dough-warnings-it-cracks-after-on-the = It cracks after { $time } on the work surface: have the oven hot before the cheese melts, shape a piece at a time and keep the rest warm. More cheese or less flour gives more time.
dough-warnings-add-a-binder-egg-egg = Add a binder (egg, egg white, psyllium, flax, or melted cheese), or the dough will fall apart.
dough-warnings-no-ingredients-yet-add-one = No ingredients yet. Add one or paste a list.
dough-warnings-add-egg-egg-white-or = Add egg, egg white, or whey: only { QUANTITY($share) } of the binding sets in the oven. A { $form_name } needs { QUANTITY($least) }, or it may rise and then sink.
dough-warnings-of-baking-soda-has-no = { QUANTITY($soda_excess) } of baking soda has no acid to react with. The dough browns and spreads more, which suits some cookies.
dough-warnings-reduce-the-acid-or-add = Reduce the acid or add { QUANTITY($acid_excess) } of baking soda: the extra acid will taste sour.
dough-warnings-reduce-the-fat-of-the = Reduce the fat: { QUANTITY($share) } of the dough is butter or oil, so it spreads flat and tastes greasy. Even rich doughs rarely go above 25 %.
dough-warnings-garlic-in-oil-or-butter = Garlic in oil or butter can cause botulism. Make it fresh, keep it in the fridge, and use it within 4 days.
dough-warnings-use-less-baking-powder-or = Use less baking powder or add egg white: the gas needs { QUANTITY($strain) } times the space this dough can hold, so it may rise and then sink.
dough-warnings-use-warm-liquid-c-mixed = Use warm liquid ({ QUANTITY(38, unit: "C", high: 45) }): mixed at { QUANTITY($temperature) }, the psyllium forms less gel and the dough stays wet.
dough-warnings-let-the-cheese-cool-to = Let the cheese cool to about { QUANTITY(38, unit: "C") } before you add the yeast: at { QUANTITY($warm) } the yeast dies.
dough-warnings-bake-until-the-crumb-is = Bake until the crumb is dry, or it may be slightly gummy ({ QUANTITY($score) } out of 10). Cause: { $what }.
dough-warnings-expect-a-gummy-crumb-out = Expect a gummy crumb ({ QUANTITY($score) } out of 10). Cause: { $what }. Bake longer or use less of it.
dough-warnings-squeeze-the-first-see-prep = Squeeze the { $names } first (see Prep): about { QUANTITY($juice) } of juice would come out in the oven and make the crust soggy.
dough-warnings-add-a-little-sugar-if = Add a little sugar if you want the yeast to raise the dough: with almost no sugar it only adds flavor.
dough-warnings-add-a-flour-fiber-or = Add a flour, fiber, or binder: baker's percentages need a dry base.
dough-warnings-reduce-the-of-the-dough = Reduce the { $cap_name }: { QUANTITY($percent) } of the dough is above the { QUANTITY($hard) } limit and makes it { $effect }.
dough-warnings-of-soda-has-nothing-to = { QUANTITY($soda_excess) } of soda has nothing to react with: { $surely ->
        [yes] soapy taste, brown crumb
       *[no] you may taste it, and it browns
    }. Use less soda, add an acid, or use baking powder.
dough-warnings-is-of-the-dough-from = { $cap_name } is { QUANTITY($percent) } of the dough. From about { QUANTITY($soft) } the dough can turn { $effect }.

## figure_changes

figure-changes-now-right = ; now right
figure-changes-parts = ; { $note }
figure-changes-was-now = Was: { $handling_text } Now: { $handling_text_2 }

## ingredient_warnings

ingredient-warnings-to-reduce-it = To reduce it: { $todo }.
ingredient-warnings-this-food-varies-naturally = This food varies naturally.
ingredient-warnings-nearly-all-of = Nearly all of
ingredient-warnings-of = { QUANTITY($share) } of
ingredient-warnings-grain-free-does-not-mean = grain-free does not mean low-carb: dry legumes are 40 to 52 % net carbs
ingredient-warnings-a-starch-is-nearly-all = a starch is nearly all net carbohydrate
ingredient-warnings-weigh-it = weigh it
ingredient-warnings-add-your-own-pack-s = add your own pack's label
ingredient-warnings-crystals =
    { $kind ->
        [erythritol] { QUANTITY($excess) } of { QUANTITY($all) } of erythritol does not dissolve in the { QUANTITY($water) } of water left after baking: it turns gritty and cools the mouth. Use it powdered, or replace half with allulose or xylitol.
       *[polyols] { QUANTITY($excess) } of { QUANTITY($all) } of sugar alcohols does not dissolve in the { QUANTITY($water) } of water left after baking: it can turn gritty. Use it powdered.
    }
ingredient-warnings-not-low-carb = This is not low-carb: { QUANTITY($net) } of net carbs a piece, { QUANTITY($share) } of it from { $top_name }.
ingredient-warnings-the-uncertainty-in-net-carbs = { $largest_share } the uncertainty in net carbs comes from { $top_name }. { $to_reduce }
ingredient-warnings-a-pack-used-in-this = A pack used in this formula is not in your pantry. Reference values are used instead.
ingredient-warnings-polyols-excessive-consumption-may-produce = { QUANTITY($share) } polyols: excessive consumption may produce laxative effects.
ingredient-warnings-of-the-net-carbs-come = { QUANTITY($share) } of the net carbs come from { $next }: { $text }.

## summary

summary-only-about-min = Only about { QUANTITY($minutes) }
summary-less-than-a-minute = Less than a minute
summary-good-binding = Good binding
summary-rather-loosely-bound = Rather loosely bound
summary-rather-firmly-bound = Rather firmly bound
summary-too-little-binding = Too little binding
summary-too-much-binding = Too much binding
summary-no-dry-base-yet = No dry base yet
summary-only-of-the-binding-sets = ; only { QUANTITY($estimate) } of the binding sets in the oven
summary-little-leavening = Little leavening
summary-more-gas-than-the-dough = More gas than the dough can hold
summary-low-in-salt = Low in salt
summary-rather-salty = Rather salty
summary-too-much-gas = Too much gas
summary-water-not-checked = water not checked
summary-g-net-carbs = { QUANTITY($estimate) } net carbs
summary-g-protein = { QUANTITY($estimate) } protein
summary-incomplete-yet-and-every-figure = Incomplete: { $without_weight } yet, and every figure leaves that out.{" "}
summary-this-is-outside-what-the = { $what }: this is outside what the model knows, so handling and texture are not predicted.{" "}
summary-to-shape-it-before-it = { $time } to shape it before it cracks.
summary-right-amount-of-water-for = right amount of water for a { $form }
summary-per-piece = {" "}per piece.
summary-no-ingredients-yet-add-one = No ingredients yet. Add one, or paste an ingredient list.
summary-parts = {" "}({ $top_name } { QUANTITY($share) })
summary-for-a = {" "}for a { $form }{ $heat }
summary-no-ingredient-has-a-usable = No ingredient has a usable weight. Each row says why.

## target_states

target-states-parts = { $amount } { $word_low }
target-states-incomplete = incomplete: { $without_weight }
target-states-counts-of-ingredients-the-others = counts { $count } of { $count_2 } ingredients: the others have no price
target-states-parts-2 = { $name } { QUANTITY($share) }
target-states-nothing-in-this-formula-contributes = nothing in this formula contributes
target-states-just-the-target = just { $low ->
        [yes] under
       *[no] over
    } the target
target-states-no-dry-base-yet-add = No dry base yet. Add a flour, a fiber, or a binder.
target-states-about-at-the-limit = , about at the limit
target-states-water = { QUANTITY($off) } water { $short ->
        [yes] short
       *[no] too much
    }{ $limit }
target-states-parts-3 = { $currency } { $unit }

## bake_forecast

bake-forecast-color-the-core-is-done = color (the core is done earlier)
bake-forecast-the-core-temperature = the core temperature
bake-forecast-the-crumb-which-has-to = the crumb, which has to dry
bake-forecast-flexibility-it-must-still-bend = flexibility (it must still bend)
bake-forecast-the-topping = the topping
bake-forecast-a-food-safe-center = a food-safe center
bake-forecast-your-target-weight = your target weight
bake-forecast-dry-and-golden = dry and golden
bake-forecast-dry-enough = dry enough
bake-forecast-at-your-target-weight = at your target weight
bake-forecast-this-bake-has-no-forecast = This bake has no forecast end: it never gets done with these settings.
bake-forecast-at-min = { $parts ->
        [yes] start checking
       *[no] Start checking
    } at { $minutes } min
bake-forecast-at-about-min-in-bakes = { $word } at about { $minutes } min (9 in 10 bakes: { $minutes_2 }–{ $minutes_3 } min)
bake-forecast-these-settings-do-not-work = These settings do not work – { $never_words }.
bake-forecast-golden-from-min = ; golden from { $minutes } min
bake-forecast-use-a-wash-or-a = Use a wash or a hotter finish: it will still be pale when done{ $gold }.
bake-forecast-heat-the-oil-to-c = Heat the oil to { QUANTITY(175, unit: "C", high: 185) }: in cooler oil the dough soaks up fat.
bake-forecast-cool-the-oil-to-c = Cool the oil to { QUANTITY(175, unit: "C", high: 185) }: hotter oil browns the outside before the center is done.
bake-forecast-make-it-thinner-at-this = Make it thinner: at this thickness it is dark outside and raw inside.
bake-forecast-less-certain-thin-very-wet = Less certain: thin, very wet sheets dry more slowly than forecast. Keep checking after the forecast time.
bake-forecast-less-certain-whole-seeds-in = Less certain: whole seeds in a gel dry more slowly than forecast. Keep checking after the forecast time.
bake-forecast-less-certain-few-psyllium-bakes = Less certain: few psyllium bakes have been tested. Trust a hollow sound and the target weight more than the time.
bake-forecast-rough-forecast-with-a-topping = Rough forecast with a topping: it is done when the cheese has melted. Brown it to taste.
dough-warnings-too-thick = { QUANTITY($thickness) } is far thicker than a { $form } ({ QUANTITY($usual) }): the outside is done long before the middle. Roll it thinner, or choose a thicker shape.
dough-warnings-piece-too-heavy = { QUANTITY($mass) } is no { $form } (up to about { QUANTITY($most) }): its middle stays raw. Make more pieces, or choose a loaf.
dough-warnings-does-not-melt = { $names } does not melt, so it cannot carry a melted-cheese dough. Use mozzarella, provolone, or young gouda.
bake-forecast-oven-far-too-hot = Far hotter than this shape is usually baked ({ QUANTITY($usual) }): the outside is dark or dry before the rest is ready. Turn the oven down.
bake-forecast-oven-far-too-cool = Far cooler than this shape is usually baked ({ QUANTITY($usual) }): it dries out before it browns. Turn the oven up.
bake-forecast-raw-flesh =
    { $safe_for ->
        [poultry] Raw poultry
        [fish] Raw fish
       *[meat] Raw ground meat
    }: bake to { $core } in the center. Only a thermometer can confirm this. Local food rules come first.
bake-forecast-hot-oil-never-leave-it = Hot oil: never leave it unattended, keep water away, and have a lid ready.
bake-forecast-at-min-2 = { $words } at { $minutes } min
bake-forecast-core-is-food-safe-at = core is food-safe at { $minutes } min
bake-forecast-take-it-out-when-the = take it out when the batch weighs { QUANTITY($best) }
bake-forecast-log-a-bake-to-narrow = Log a bake to narrow the range: it still covers any oven.
bake-forecast-the-range-is-based-on = The range is based on this oven. Weight is more reliable than time.
bake-forecast-make-it-thinner-or-bake = Make it thinner, or bake longer at a lower temperature: it burns before it is done.
bake-forecast-burns-about-min-later = burns about { $minutes } min later
bake-forecast-take-the-outer-pieces-out = take the outer pieces out at { $sooner } min
bake-forecast-edges-done-at-min = edges done at { $sooner } min

## preparation_forecast

preparation-forecast-g-of-water-at-c = { QUANTITY($grams) } of water at { QUANTITY($water) } gives a { QUANTITY($target) } dough.
preparation-forecast-c-the-limit-gives-c = ; { QUANTITY($limit) }, the limit{ $egg ->
        [yes] {" with egg"}
       *[no] {""}
    }, gives { QUANTITY($dough_at_limit) }
preparation-forecast-warm-or-chill-the-other = Warm or chill the other ingredients: { QUANTITY($target) } would need { $side } water{ $reach }.
preparation-forecast-the-dough-stays-workable-in = The dough stays workable in this room: it cracks below { QUANTITY($until) } and the room is { QUANTITY($room) }.
preparation-forecast-boiling-hot = boiling hot
preparation-forecast-ice-cold = ice cold
preparation-forecast-use-liquid-at-c-cooler = Use liquid at { QUANTITY(38, unit: "C", high: 45) }: cooler liquid makes less psyllium gel.
preparation-forecast-warm-the-piece-you-are = Warm the piece you are shaping: the dough is too cool and cracks below { QUANTITY($until) }.
preparation-forecast-min-to-shape-before-it = { QUANTITY($minutes) } to shape before it cracks{ $span }, cooling from { QUANTITY($start) } to { QUANTITY($until) }. A thinly rolled dough cools faster.
preparation-forecast-mix-the-dry-ingredients = Mix the dry ingredients
preparation-forecast-g-per-batch-g-of = { QUANTITY($per_batch) } per batch; { QUANTITY($whole) } of premix for { $batches } batches.
preparation-forecast-activate-the-yeast = Activate the yeast
preparation-forecast-rule-of-thumb = rule of thumb
preparation-forecast-warm-the-water = Warm the water
preparation-forecast-melt-the-cheese = Melt the cheese
preparation-forecast-g-from-the-fridge-bursts = { QUANTITY($grams) } from the fridge: { $bursts } bursts, { QUANTITY($seconds) } s in all ({ QUANTITY($low) } to { QUANTITY($high) } s), stirring between.
preparation-forecast-to-min = {" "}({ $low } to { $high } min)
preparation-forecast-time-to-shape = Time to shape
preparation-forecast-warm-a-piece-again = Warm a piece again
preparation-forecast-warm-only-the-piece-you = Warm only the piece you are shaping: { QUANTITY($grams) } from { QUANTITY($start) } to { QUANTITY($aim) } takes { QUANTITY($seconds) } s (the whole dough would take { QUANTITY($seconds_2) } s).
preparation-forecast-a-gel-filling = A gel filling
preparation-forecast-choose-the-frying-fat = Choose the frying fat
preparation-forecast-at-c = At { QUANTITY($oil) }: { $value }.
preparation-forecast-sift-or-whisk-until-even = Sift or whisk until even. { $keeps }
preparation-forecast-stir-sugar-and-yeast-into = Stir sugar and yeast into part of the liquid. The yeast uses up most of the sugar.
preparation-forecast-stop-when-the-cheese-flows = Stop when the cheese flows: if it gets too hot, the fat separates.
preparation-forecast-careful-hot-cheese-burns = Careful: hot cheese burns.
preparation-forecast-rewarm-as-seldom-as-possible = Rewarm as seldom as possible: the dough loses fat and water each time.
preparation-forecast-knead-before-you-touch-it = Knead before you touch it: the center is hotter than the edge.
preparation-forecast-dry-konjac-and-psyllium-swell = Dry konjac and psyllium swell: never swallow them dry.
preparation-forecast-test-the-oil-with-a = Test the oil with a crumb of dough: it must rise and sizzle right away. Turn each piece once, then drain.
preparation-forecast-hot-oil-never-leave-it = Hot oil: never leave it unattended, never pour water on it, and have a lid ready.
preparation-forecast-dry-the = Dry the { $ingredient_name }
preparation-forecast-raw-egg-do-not-taste = Raw egg: do not taste the dough.
preparation-forecast-for-liquid-one-of = For { QUANTITY($water) } of liquid: { $gels } (one of them).
preparation-forecast-rice-or-shred-it-squeeze = Rice or shred it. Squeeze it in a cloth, gather the cloth again, and repeat two or three times: more juice comes out each time.
preparation-forecast-stay-below-c-if-there = Stay below { QUANTITY(50, unit: "C") } if there is egg: above that, it starts to set.
preparation-forecast-g = { QUANTITY($grams) } { $ingredient }

## shape_forecast

shape-forecast-along-the-fold = along the fold
shape-forecast-parts = { $bodies } × { $weight }: { $size }. { $lying }.
shape-forecast-fills-of-the-pan-s = fills { QUANTITY($fill_share) } of the pan's height
shape-forecast-g-of-dough-mm-high = { QUANTITY($dough) } of dough, { QUANTITY($thickness) } high; it { $fill }. { $pieces } slices.
shape-forecast-g = { QUANTITY($dough) }
shape-forecast-tray-of = { $trays ->
        [one] 1 tray
       *[other] { $trays } trays
    } of { $a_tray }
shape-forecast-too-large-for-the = too large for the { $tray_name }
shape-forecast-ropes-of-mm-mm-thick = ropes of { QUANTITY($length) }, { QUANTITY($thickness) } thick
shape-forecast-mm-across-mm-thick-with = { QUANTITY($length) } across, { QUANTITY($thickness) } thick, with a hole of { QUANTITY($hole) }
shape-forecast-half-moons-of-mm-from = half moons of { QUANTITY($length) } × { QUANTITY($width) } from a sheet of { QUANTITY($thickness) }
shape-forecast-g-of-filling-makes-a = { QUANTITY($filling) } of filling makes a layer { QUANTITY($filling_2) } thick
shape-forecast-up-to-g-of-filling = Up to { QUANTITY($filling_most) } of filling
shape-forecast-leave-a-free-edge-of = { $lies }. Leave a free edge of { QUANTITY($seal) }, press it firmly to seal, and cut a vent.
shape-forecast-roll-a-rope-of-mm = Roll a rope of { QUANTITY($rope) } and close it, or punch the hole.
shape-forecast-mm-mm-thick = { QUANTITY($length) } × { QUANTITY($width) }, { QUANTITY($thickness) } thick
shape-forecast-use-a-larger-pan-above = Use a larger pan: above { QUANTITY($constant) } of its height the dough will overflow.
shape-forecast-square-the-edges-with-the = Square the edges with the trimmings. Dock and space every piece. Take the outer pieces out first.
shape-forecast-make-it-thinner-at-this = Make it thinner: at this thickness the outside darkens in the oil before the center is done.
shape-forecast-in-the-each-piece-to = In the { $heat }, each piece { $grows ->
        [yes] spreads
       *[no] shrinks
    } to about { QUANTITY($grown_length) }.
shape-forecast-a-rope-s-girth-is = A rope's girth is { QUANTITY($pi) }; pinch the joints.
shape-forecast-use-up-to-g-of = Use up to { QUANTITY($filling_most) } of filling per piece: more tears the dough.
shape-forecast-shape-a-wider-hole-in = Shape a wider hole: in the { $heat } it shrinks to about { QUANTITY($grown_hole) } and closes.
shape-forecast-mm-across-mm = { QUANTITY($length) } across, { QUANTITY($thickness) } { $word }
shape-forecast-about-mm-thick-after-proofing = About { QUANTITY($proofed) } thick after proofing.

## variety_bakes

variety-bakes-after-its-topping = , { QUANTITY($best) } after its topping
variety-bakes-out-at-about-min-in = { $name }: out at about { QUANTITY($best) }{ $after } (9 in 10 bakes: { QUANTITY($low) })

## keeping

keeping-it-is-moist-and-germs = it is moist, and germs can grow at room temperature
keeping-estimated-water-activity-up-to = { $warm }Estimated water activity { QUANTITY($likely) } (up to { QUANTITY($wet) }); not tested.
keeping-in-the-fridge-why-not = { $count } in the fridge{ $frozen }, { $form_text }. Why not at room temperature: { $reason }. { $last }
keeping-eat-it-on-the-day = Eat it on the day it is baked, or chill it. It keeps { $cold }
keeping-days = { $number ->
        [one] 1 day
       *[other] { $number } days
    }
keeping-months = { $number ->
        [one] 1 month
       *[other] { $number } months
    }
keeping-it-is-moist-and-holds = it is moist and holds { $value }
keeping-in-the-freezer = , { $count } in the freezer
keeping-to-reheat = To reheat: { $form_text }{ $hot }.{" "}
keeping-keeps-at-room-temperature-why = Keeps { $days } at room temperature{ $frozen }: { $form_text }. Why: { $reason }. { $last }
keeping-put-it-in-the-fridge = Put it in the fridge within { $chill } hours of baking. It keeps { $cold }
keeping-is-not-counted-so-nobody = { $names } is not counted, so nobody knows how it keeps

## learned_biases

learned-biases-from-bake-of-other-doughs = from { $runs ->
        [one] 1 bake
       *[other] { $runs } bakes
    } of other doughs in this kitchen
learned-biases-from-of-your-own-bakes = from { $runs } of your own bakes
learned-biases-than-the-built-in-model = { QUANTITY($stiffer) } { $word } than the built-in model, { $source }
