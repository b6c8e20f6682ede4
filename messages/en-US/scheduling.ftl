### Scheduling.

## late_remedies

late-remedies-start-earlier-add-a-person = start earlier, add a person, or remove a bake
late-remedies-alone-takes-min = { $names } alone takes { $critical } min
late-remedies-a-second-person = a second person
late-remedies-one-more-tray-in = one more tray in { $first_name }
late-remedies-a-second-oven = a second oven
late-remedies-start-min-earlier-or-move = start { $earlier } min earlier, or move all deadlines { $earlier } min later
late-remedies-would-make-everything-ready-on = { $text } would make everything ready on time
late-remedies-without-the-others-are-in = without { $due_name } the others are in time

## manual_moves

manual-moves-min-late = { $due_name } { $over } min late

## plan_answer

plan-answer-first-work-at = First work at { $time }
plan-answer-bake-late = { $bake } { $minutes } min late
plan-answer-within-of-the-best-possible = ; within { QUANTITY($gap) } of the best possible plan
plan-answer-everything-is-ready-on-time = { $when }. Everything is ready on time; { $sure }. Oven on for { $hours } h { $minutes } min{ $best }.
plan-answer-parts = { $when }; { $late }
plan-answer-this-is-the-best-possible = ; this is the best possible plan

## replanning

replanning-all-deadlines-are-still-met = all deadlines are still met
replanning-no-tasks-move = no tasks move
replanning-task-move = { $moved_tasks ->
        [one] 1 task moves
       *[other] { $moved_tasks } tasks move
    }
replanning-parts = { $things }, { $deadline }
replanning-min-late = { $name } { $end } min late
replanning-min-after-its-time = { $after_text } { $over } min after its time ({ $reason })

## purchasing

purchasing-there-is-enough = { $name }: there is enough
purchasing-g-for-g = { $name }: { $number } × { QUANTITY($size) } for { QUANTITY($short) }
purchasing-g = { $name }: { QUANTITY($short) }

## robust_plan

robust-plan-planned-with-usual-times-not = planned with usual times; not everything is as fresh as you asked
robust-plan-nearly-all = nearly all
robust-plan-more-than-in = more than 9 in 10
robust-plan-about-in = about { $share } in 10
robust-plan-hardly-any = hardly any
robust-plan-day-in = 1 day in { $share }
robust-plan-days-in = { $share } days in 10
robust-plan-planned-with-slow-baking-times = planned with slow baking times, shorter time limits, people free to check, and 10 min to spare
robust-plan-planned-with-slow-baking-times-2 = planned with slow baking times, shorter time limits, and people free to check
robust-plan-planned-with-slow-baking-times-3 = planned with slow baking times and shorter time limits
robust-plan-planned-with-usual-times = planned with usual times
robust-plan-works-on-days-counted-on = works on { $about } days, counted on { $runs } simulated days
robust-plan-parts = { $text }, { $odds }

## plan_check

plan-check-two-temperatures-at-the-same = two temperatures at the same time
plan-check-is-not-available-yet = { $oven_name } is not available yet
plan-check-people-are-needed = { $busy } people are needed
plan-check-work-during-closed-hours = work during closed hours
plan-check-of-needed = { $busy } of { $name } needed
plan-check-the-oven-door-opens-too = the oven door opens too early
plan-check-not-planned = not planned: { $missing }
plan-check-trays-in = { $trays_in } trays in { $oven_name }
plan-check-takes-min = { $task_text } takes { $length } min
plan-check-starts-in-the-past = { $task_text } starts in the past
plan-check-was-moved = { $task_text } was moved
plan-check-has-no-oven = { $task_text } has no oven
plan-check-is-ready-too-early = { $due_name } is ready too early
plan-check-too-soon-after = too soon after “{ $text }”
plan-check-too-late-after = too late after “{ $text }”: { $reason }
plan-check-is-not-hot-yet = { $oven_name } is not hot yet

## bake_tasks

bake-tasks-cooling-starts-when-it-leaves = cooling starts when it leaves the oven

## oven_loads

oven-loads-heat-the-oil-and-stay = Heat the oil and stay with it
oven-loads-fry = Fry { QUANTITY($pieces) }
oven-loads-load = , load { $load }
oven-loads-bake-at-c = Bake { $bake } at { QUANTITY($oven) }{ $where }
oven-loads-add-topping = Add topping
oven-loads-parts = { $text } { $formula_name }
oven-loads-never-leave-hot-oil-unattended = never leave hot oil unattended

## oven_parts

oven-parts-parts = { $name }, { $sort_name }

## preparation_tasks

preparation-tasks-weigh-ingredients-for = Weigh ingredients for { $formula_name }
preparation-tasks-rice-or-shred-the = Rice or shred the { $name }
preparation-tasks-mix = Mix { $formula_name }
preparation-tasks-make-the = Make the { $formula_name }
preparation-tasks-parts = { $text }: { $name }

## shaping_tasks

shaping-tasks-shape-of = Shape { QUANTITY($pieces) } of { $name }{ $suffix }{ $again }
shaping-tasks-min-of-it-to-warm = , { QUANTITY($rewarming) } of it to warm pieces again
shaping-tasks-parts = { $formula_name } { $where }
shaping-tasks-proof = Proof { $formula_name }
shaping-tasks-the-dough-cracks-once-it = the dough cracks once it cools
shaping-tasks-the-dough-becomes-too-stiff = the dough becomes too stiff to shape
