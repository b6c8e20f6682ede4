### Inference.

## bake_comparison

bake-comparison-far-too-pale = far too pale
bake-comparison-as-wanted = as wanted
bake-comparison-far-too-dark = far too dark
bake-comparison-vegetable-after-squeezing = vegetable after squeezing
bake-comparison-oven-setting = oven setting
bake-comparison-oven-by-a-probe = oven by a probe
bake-comparison-in-the-oven = in the oven
bake-comparison-weight-lost = weight lost
bake-comparison-differed = Differed: { $words }.
bake-comparison-no-logged-value-differs = No logged value differs.
bake-comparison-of = of 10
bake-comparison-the-weight-forecast-was-right = the weight forecast was right in { $held } of { $pairs } bakes

## habits

habits-weights-compared-with-the-formula = weights compared with the formula
habits-rest-times-compared-with-the = rest times compared with the formula

## hands_block

hands-block-built-in-model = built-in model

## learned_parameters

learned-parameters-from = { $words }: × { QUANTITY($middle) } ({ QUANTITY($exp) }–{ QUANTITY($exp_2) }), from { $count }
learned-parameters-trial = 1 trial
learned-parameters-trials = { $number } trials
learned-parameters-from-of-your-own-bakes = from { $mine } of your own bakes
learned-parameters-built-in-model = built-in model
learned-parameters-from-of-other-doughs-in = from { $count } of other doughs in this kitchen
learned-parameters-from-in-this-kitchen = from { $count } in this kitchen

## learning

learning-degrees = { $sign }{ QUANTITY($value) } ± { QUANTITY($half) }
learning-oven-offset-actual-minus-set = oven offset (actual minus set)
learning-heat-transfer-by-air = heat transfer by air
learning-actual-thickness-formula-thickness = actual thickness ÷ formula thickness
learning-from = { $words }: { $value_text }, from { $count }
learning-you-score-higher = you score { $texture_words } higher
learning-handling-steps = { QUANTITY($value) } handling steps { $side } ± { QUANTITY($half) }
learning-and = and { $get }
learning-parts = { $words } ({ $oven })
learning-your-feel-compared-with-the = your feel compared with the forecast
learning-doughs = { $name } doughs

## measures_block

measures-block-a-cup-of = a cup of { $ingredient_name }{ $ingredient_name_2 }
measures-block-g-g-built-in-value = { $words }: { QUANTITY($value) } ({ QUANTITY($value_2) }); built-in value { QUANTITY($house) }; from { $count }

## oven_block

oven-block-this-oven = this oven

## palate_block

palate-block-built-in-model = built-in model

## cause_arguments

cause-arguments-this-oven-is-known-to = this oven is known to run { QUANTITY($offset_k) } { $side } ± { QUANTITY($half_90_k) }, and the forecast counts that: here it would have to be even further off
cause-arguments-your-log = your log: { $logged_value_text }
cause-arguments-in-this-formula-it-would = in this formula it would cause: { $explained }
cause-arguments-bakers-know-it-as-a = bakers know it as a cause of: { $practised }
cause-arguments-does-not-explain = does not explain: { $unexplained }
cause-arguments-parts = { $words } (+{ QUANTITY($rise) })

## diagnosis

diagnosis-causes-are-ranked-from-this = Causes are ranked from this formula's numbers and your log of this bake. Some thresholds are rules of thumb. In simulated tests, the true cause ranked first in 4 of 5 logged bakes.

## evidence

evidence-the-eggs = the eggs
evidence-the-liquid = the liquid
evidence-the-flour = the flour
evidence-the-binder = the binder
evidence-the-leavening = the leavening
evidence-parts = { $slip_words }: { $happened ->
        [yes] yes
       *[no] no
    }
evidence-rested-min-instead-of-min = rested { $number } min instead of { QUANTITY($usual) }
evidence-mm-thick-instead-of-mm = { QUANTITY($measured) } thick instead of { QUANTITY($thick) }
evidence-min-in-the-oven-instead = { $number } min in the oven instead of { QUANTITY($minutes) }
evidence-parts-2 = { $line }: { $what }
evidence-of-the-formula-weight = { $get }: { QUANTITY($factor) } of the formula weight
evidence-the-vegetable-weighed-g-instead = the vegetable weighed { QUANTITY($squeezed) } instead of { QUANTITY($vegetable) }
evidence-the-dough-was-c-instead = the dough was { QUANTITY($dough) } instead of { QUANTITY($warm) }
evidence-the-oven-thermometer-read-c = the oven thermometer read { QUANTITY($probe) } at a setting of { QUANTITY($dial) }
evidence-trays-in-the-oven = { $trays } trays in the oven
evidence-substitute-used = substitute used: { $text }

## explanation

explanation-no-faults-reported-so-there = No faults reported, so there is nothing to explain.
explanation-in-the-formula = In the formula: { $words } ({ $probability_text })
explanation-or = , or { $words }
explanation-in-how-it-was-made = in how it was made: { $words } ({ $probability_text }){ $also }
explanation-less-likely = less likely
explanation-no-mistake-explains-it-well = No mistake explains it well. It may be chance, or the forecast is wrong for this dough.
explanation-which-causes = { $mechanism }, which causes { $words }

## next_test

next-test-repeat-the-same-formula-with = Repeat the same formula, with everything weighed and timed

## proposed_making

proposed-making-line = { $name } { QUANTITY($was) } → { QUANTITY($to) }
proposed-making-min = { QUANTITY($was) } → { QUANTITY($to) }
proposed-making-c = { QUANTITY($oven) } → { QUANTITY($to) }
proposed-making-mm = { QUANTITY($was) } → { QUANTITY($to) }

## figure_history

figure-history-in-the-oven = in the oven
figure-history-weight-lost = weight lost
figure-history-core-out-of-the-oven = core out of the oven
figure-history-empty-oven-temperature = empty oven temperature
figure-history-dough-temperature-after-mixing = dough temperature after mixing
figure-history-vegetable-weight-after-drying = vegetable weight after drying
figure-history-of = of 10
figure-history-lightness-of-the-crust = lightness of the crust
