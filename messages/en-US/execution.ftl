### Execution.

## feel_advice

feel-advice-cover-the-dough-in-dry = Cover the dough. In dry air you can add up to { QUANTITY($as_poured) } more liquid by feel, toward the end of mixing.
feel-advice-cover-the-dough-right-away = Cover the dough right away: in dry air its surface dries out.
feel-advice-is-not-right-for-a = { $felt } is not right for a { $form } yet. Try this: { $ways_text }.
feel-advice-shape-it-now-is-right = Shape it now: { $felt } is right for a { $form }.{ $closing_text }
feel-advice-is-not-right-for-a-2 = { $felt } is not right for a { $form }, and no small change will fix it.
feel-advice-let-it-cool = let it cool
feel-advice-chill-it = chill it
feel-advice-g = + { QUANTITY($grams) } { $name }{ $whole ->
        [yes] {""}
       *[no] , then feel again
    }
feel-advice-you-have-about-min-before = {" "}You have about { QUANTITY($closes) } before it is too stiff.
feel-advice-wait-min = wait { QUANTITY($minutes) }
feel-advice-let-the-dough-warm-to = let the dough warm to { QUANTITY($to) }
feel-advice-let-the-dough-cool-to = let the dough cool to { QUANTITY($cooler) } and knead the fat back in
feel-advice-rest-the-dough-min-and = rest the dough 5 min and do not work it further
feel-advice-check-the-weights-first-the = check the weights first: the dough is far from the target
feel-advice-check-what-was-weighed-no = check what was weighed: no small change will fix this
feel-advice-to-c = { $how } to { QUANTITY($to) }
feel-advice-warm-only-the-piece-you = warm only the piece you are shaping to { QUANTITY($to) }
feel-advice-press-the-dough-together-firmly = press the dough together firmly once more

## live_forecast

live-forecast-parts = { $when }: { $how }{ $oven }.
live-forecast-about-min-left = about { QUANTITY($remaining) } left
live-forecast-done-at-about-min-of = { $when }: done at about { QUANTITY($ready) } of baking.
live-forecast-as-forecast = as forecast
live-forecast-min-than-forecast = { QUANTITY($moved) } { $later ->
        [yes] later
       *[no] earlier
    } than forecast
live-forecast-this-oven-runs-about-c = ; this oven runs about { QUANTITY($offset) } { $hot ->
        [yes] hot
       *[no] cool
    }
live-forecast-check-it-now = check it now
live-forecast-take-it-out-now = take it out now
live-forecast-the-end-of-this-bake = The end of this bake cannot be forecast. Go by weight and color.

## oven_steps

oven-steps-check-from-min-take-out = check from { QUANTITY($low) }, take out by { QUANTITY($high) }
oven-steps-after-min = after { QUANTITY($minute) }
oven-steps-weigh-the-dough-without-tray = Weigh the dough without tray and paper
oven-steps-weight-loss-shows-doneness-better = weight loss shows doneness better than time does
oven-steps-at-c = { $stage_name }{ $fried ->
        [yes] : oil
       *[no] {""}
    } at { QUANTITY($oven) }
oven-steps-dark-dough = set at the rim, springs back in the center; a dark dough hides its color
oven-steps-min = { QUANTITY($minutes) }
oven-steps-turn-the-tray-if-there = Turn the tray. If there are two, swap them.
oven-steps-after-min-2 = after { QUANTITY($best) }
oven-steps-take-out-of-the = Take { $sorts } out of the { $where }
oven-steps-weigh-the-baked-pieces = Weigh the baked pieces
oven-steps-g = { QUANTITY($best) } ({ QUANTITY($low) }–{ QUANTITY($high) })
oven-steps-all-pieces-together-without-tray = All pieces together, without tray or pan, right after baking.
oven-steps-let-cool = Let cool
oven-steps-let-stand = Let stand
oven-steps-take-out-of-the-2 = Take { $sort_name } out of the { $where }
oven-steps-pieces = { QUANTITY($pieces) } pieces, { $window }
oven-steps-core-temperature-about-c = core temperature about { QUANTITY($core) }

## pour_advice

pour-advice-g = { QUANTITY($as_poured) }
pour-advice-too-much = too much
pour-advice-too-little = too little
pour-advice-but-will-be-out-of = {" "}(but { $worse } will be out of range)
pour-advice-and-top-up = , and top up { $again }
pour-advice-parts = { $grams } { $side } { $name }: { $ways }.
pour-advice-add-to-keep-the-same = add { $grams } { $name } to keep the same handling{ $exception }
pour-advice-scale-everything-else-for-pieces = scale everything else × { QUANTITY($factor) } for { QUANTITY($pieces) } pieces{ $top_up }
pour-advice-is-within-tolerance = { $grams } { $name } is within tolerance.
pour-advice-pour-more = pour { $grams } more
pour-advice-leave-it-as-is-no = leave it as is: no other change needed
pour-advice-take-out = take { $grams } out

## protocol

protocol-spoon-out = Spoon out
protocol-dry-in-a-pan-over = Dry in a pan over medium heat, stirring
protocol-microwave-at-watts = Microwave at { QUANTITY($watts) } W
protocol-squeeze-in-a-cloth-times = Squeeze in a cloth { $times } times
protocol-salt-and-let-stand = Salt and let stand
protocol-cook-until-soft-then-drain = Cook until soft, then drain
protocol-let-it-stand-and-drain = Let it stand and drain
protocol-to = { $low } to { $high }
protocol-steps-g-of-dough-for = { $steps } steps. { QUANTITY($dough) } of dough for { QUANTITY($pieces) } × { QUANTITY($as_poured) }.
protocol-g-about-s-in-bursts = { QUANTITY($grams) }: about { QUANTITY($seconds) } s in bursts, stirring between.
protocol-melts-in-all-mix-and = {" "}{ $melts } melts in all: mix and shape one before the next.
protocol-g-each = { QUANTITY($as_poured) } each
protocol-g = { QUANTITY($dough) }
protocol-melt = Melt { $names }
protocol-preheat-the-oven-to-c = Preheat the oven to { QUANTITY($oven) }{ $fan ->
        [yes] , fan on
       *[no] {""}
    }
protocol-check-with-an-oven-thermometer = check with an oven thermometer: the real temperature can differ
protocol-press-the-dough-how-does = Press the dough. How does it feel?
protocol-parts = { $shaping } { QUANTITY($bodies) }: { $value }
protocol-riced-or-shredded = { $card_name }, riced or shredded
protocol-g-raw = { QUANTITY($start) } raw
protocol-weigh-the-dried = Weigh the dried { $card_name }
protocol-g-after-drying = { QUANTITY($target) } after drying
protocol-soak-for-at-least-hours = Soak { $names } for at least 4 hours, better overnight, then blend smooth
protocol-ready-when-foamy = ready when foamy
protocol-g-2 = { QUANTITY($grams) } ± { QUANTITY($off) }
protocol-c = { QUANTITY($water) }
protocol-measure-the-dough-temperature = Measure the dough temperature
protocol-about-c = about { QUANTITY($temperature) }
protocol-let-the-shaped-pieces-rise = Let the shaped pieces rise in a warm place, covered
protocol-ready-when-larger-and-a = ready when 25 % larger and a dent springs back slowly
protocol-mm = { QUANTITY($thickness) } { $thick_word }, { $weight }
protocol-prepare-the = Prepare the { $ingredient_name }
protocol-g-3 = { QUANTITY($grams) }
protocol-raw-pulses-have-to-be = Raw pulses have to be cooked through; red kidney beans are boiled hard first.
protocol-let-the-dough-rest = Let the dough rest { $rest_text }
protocol-let-the-dough-rest-2 = Let the dough rest
protocol-should-feel-when-you-press = should feel { $classes } when you press it
protocol-warm-only-the-piece-you = Warm only the piece you are shaping, once or twice: the dough cracks below { QUANTITY($until) }.
protocol-down-to-g = down to { QUANTITY($target) }
protocol-open-the-cloth-gather-it = open the cloth, gather it again, and squeeze: more juice comes out
protocol-shape-it-right-away-it = Shape it right away: it cracks after about { QUANTITY($short) }; keep the rest covered and warm
protocol-the-dough-cools-shape-it = The dough cools: shape it before it cracks
