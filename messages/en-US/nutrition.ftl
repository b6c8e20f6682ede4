### Nutrition.

## claims

claims-and-more = {" "}and { $grounds } more
claims-not = Not { $kind_name }: { $words }{ $more }.
claims-cannot-be-said-yet = { $kind_name } cannot be said yet: { $without_weight }.
claims-cannot-be-said-without-a = { $kind_name } cannot be said without a certificate: { $words }{ $more }.
claims-nothing-in-the-bowl-yet = { $kind_name }: nothing in the bowl yet.
claims-no-ingredient-known-to-be = { $kind_name }: no ingredient known to be high in them.
claims-all-ingredients-support-this-claim = { $kind_name }: all ingredients support this claim.
claims-parts = { $name } { $reason }
claims-has-a-pack-that-may = has a pack that may contain traces

## daily_limits

daily-limits-limited-by = { $name }: { $words }{ $doubt }, limited by { $tightest_name }.
daily-limits-no-limit-applies = { $name }: no limit applies.
daily-limits-less-than-one-piece-fits = less than one piece fits
daily-limits-a-day = { $pieces ->
        [one] 1 piece
       *[other] { $pieces } pieces
    } a day
daily-limits-even-in-the-worst-case = , { $sure } even in the worst case
daily-limits-has-no-daily-limits = { $eater_name } has no daily limits.

## hidden_amounts

hidden-amounts-up-to-of-per-piece = Up to { $amount } { $unit } of { $figures } per piece can be hidden behind { $first }{ $others }.
hidden-amounts-and-more = {" "}and { $zeros } more

## ingredient_comparison

ingredient-comparison-ash-acids = Ash, acids
ingredient-comparison-sugars-starch = Sugars, starch
ingredient-comparison-polyols-allulose = Polyols, allulose

## net_carbs

net-carbs-total-carbohydrate-fiber-erythritol-allulose = total carbohydrate − fiber − erythritol − allulose − half of other polyols
net-carbs-carbohydrate-which-excludes-fiber-erythritol = carbohydrate (which excludes fiber) − erythritol − half of other polyols
net-carbs-total-carbohydrate-nothing-taken-off = total carbohydrate, nothing taken off
