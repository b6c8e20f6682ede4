### Process.

## bake_variations

bake-variations-same-time = same time
bake-variations-min = { $longer ->
        [yes] +
       *[no] −
    } { QUANTITY($wish) }
bake-variations-by = , { $drier ->
        [yes] drier
       *[no] moister
    } by { QUANTITY($points) }
bake-variations-cooler = { $cooler } cooler
bake-variations-thicker = { $text } thicker
bake-variations-dough-from-the-fridge = dough from the fridge
bake-variations-at = at { $altitude }
bake-variations-not-done = not done
bake-variations-no-fan-hotter = no fan, { $fan } hotter
bake-variations-fan-on-lower = fan on, { $fan } lower
bake-variations-second-tray-in-the-oven = second tray in the oven
bake-variations-on-a-hot-stone = on a hot stone
bake-variations-on-a-tray = on a tray

## doneness

doneness-stays-gummy-use-less-water = stays gummy: use less water, or bake longer at a lower temperature
doneness-burns-before-it-is-dry = burns before it is dry
doneness-stays-pale-use-a-hotter = stays pale: use a hotter oven or a wash
doneness-burns-before-the-center-is = burns before the center is done: make it thinner, or bake longer at a lower temperature
doneness-burns-before-the-center-is-2 = burns before the center is safe to eat: make it thinner, or bake longer at a lower temperature
doneness-neither-browns-nor-dries = neither browns nor dries
doneness-the-topping-does-not-get = the topping does not get hot
doneness-does-not-reach-your-target = does not reach your target weight

## oven_profile

oven-profile-an-unknown-oven = an unknown oven
oven-profile-c-from = { $name }: { QUANTITY($offset_k) } { $side } ± { QUANTITY($half_90_k) }, from { $bakes }
oven-profile-unknown-c = { $name }: unknown, ± { QUANTITY($half_90_k) }
oven-profile-bake = 1 bake
oven-profile-bakes = { $bakes } bakes

## premix

premix-keep-the-mix-dry-moisture = Keep the mix dry: moisture uses up the leavening.
premix-shake-before-weighing-psyllium-settles = Shake before weighing: psyllium settles.
premix-keeps-a-few-weeks-in = Keeps a few weeks in the fridge: ground nuts and seeds turn rancid.
premix-keeps-a-few-months-airtight = Keeps a few months, airtight and in the dark.

## vegetable_stages

vegetable-stages-g-raw-gives-g-after = { QUANTITY($start) } raw gives { QUANTITY($target) } after drying (usually { QUANTITY($low) }).
vegetable-stages-use-g-as-is-water = Use { QUANTITY($target) } as is ({ QUANTITY($composition) } water).
vegetable-stages-g-on-the-scale-from = { QUANTITY($target) } on the scale from { QUANTITY($start) } raw: { $words }; { QUANTITY($composition) } water.
vegetable-stages-as-forecast = as forecast
vegetable-stages-g-than-forecast = { QUANTITY($off) } { $more ->
        [yes] more
       *[no] less
    } than forecast

## yeast_activation

yeast-activation-no-foam-yet-longer = No foam yet. { $cool ->
        [yes] {"Use warmer water, or wait "}
       *[no] {"Wait "}
    }longer{ $foams_at }.
yeast-activation-use-water-at-c-c = Use water at { QUANTITY(38, unit: "C", high: 43) }: { QUANTITY($temperature) } kills yeast.
yeast-activation-use-cooler-water-c-at = Use cooler water ({ QUANTITY(38, unit: "C", high: 43) }): at { QUANTITY($temperature) } the yeast stops working and soon dies.
yeast-activation-add-a-teaspoon-of-sugar = Add a teaspoon of sugar to start the yeast. The yeast uses it up.
yeast-activation-expect-foam-after-about-min = Expect foam after about { QUANTITY($foams_at) }. If there is none after 15 min, the water was too hot or too cold, or the yeast is old.

## forecast_reliability

forecast-reliability-based-on-test-of-this = Based on { $bakes ->
        [one] 1 test bake
       *[other] { $bakes } test bakes
    } of this kind of dough
forecast-reliability-for-doughs-like-this-the = { $text }. For doughs like this, the forecast is usually within { $minutes } min.
forecast-reliability-based-on-test-doughs-of = Based on { $handled } test doughs of this kind; the forecast was right for { $handled_right } of them.
forecast-reliability-and-of-your-own = {" "}and { $logged } of your own

## handling_forecast

handling-forecast-cracks-below = { $words }; cracks below { QUANTITY($until) }.
handling-forecast-crumbly-not-enough-free-liquid = Crumbly: not enough free liquid or fat to bind the particles.
handling-forecast-perhaps = , perhaps { $other }
handling-forecast-right-after-mixing = { $class_name } right after mixing{ $perhaps }
handling-forecast-min = { QUANTITY($minutes) }
handling-forecast-from-the-start = { $class_name } from the start{ $perhaps }
handling-forecast-at-mixing-after = { $class_name } at mixing, { $class_name_2 } after { $long }{ $perhaps }

## handling_limits

handling-limits-pressing-or-kneading-may-help = ; pressing or kneading may help
handling-limits-more-water-than-the-dry = more water than the dry ingredients can absorb
handling-limits-not-enough-free-liquid-to = not enough free liquid to hold the dough together{ $press }
handling-limits-warm-the-piece-you-are = warm the piece you are shaping: the cheese has cooled
handling-limits-too-little-free-water = too little free water
handling-limits-rest-the-dough-min-the = rest the dough { $ceil } min: the flours are still absorbing water
handling-limits-chill-the-dough-min-the = chill the dough 30 min: the fat is soft
