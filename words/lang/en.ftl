# English. One message for each thing the core says.
# $x is printed already: a quantity in the units asked for, a name, a further message. Of a word, $x chooses and $x-w prints;
# of a list, $x joins with commas, $x-and with an "and" before the last, $x-semi with semicolons, $x-all with spaces.

list-and = and

word-left = left
word-right = right
word-both = both
word-front = front
word-rear = rear
word-camber = camber
word-caster = caster
word-toe = toe
word-cross-camber = cross-camber
word-cross-caster = cross-caster
word-height = height
word-longer = longer
word-shorter = shorter
word-inner = inner
word-centre = centre
word-outer = outer
word-usual = usual
word-measured = measured
word-outboard = outboard
word-inboard = inboard
word-forward = forward
word-rearward = rearward
word-back = back
word-up = up
word-down = down
word-higher = higher
word-lower = lower
word-more = more
word-less = less
word-past = past
word-over = over
word-under = under
word-leave = where it stands
word-top-out = top out
word-top-in = top in
word-top-back = top back
word-top-forward = top forward
word-clockwise-from-out = clockwise from out
word-spring = springs
word-collar = coilover collars
word-torsion-bar = torsion bars
word-spacer = spring or strut spacers
word-air = air level
word-add-a-leaf = an added leaf
word-shackle = shackles
word-leaf-block = leaf blocks
word-knuckle = lift or drop knuckles
word-bracket = bracket or subframe drop
word-body-lift = body lift

sentence = { $what }.
state-found = as found
state-planned = planned
state-settled = settled
state-loaded = loaded

## Orders

leave = leave
way = { $way-w }
order = { $amount } { $way-w }
order-to = { $amount } { $way-w }, to { $to }
order-add = add { $amount } ({ $way-w })
order-take-out = take out { $amount } ({ $way-w })
amount-turns = { $turns } { $n ->
    [one] turn
   *[other] turns
}
amount-notches = { $n } { $n ->
    [one] notch
   *[other] notches
}
amount-positions = { $n } { $n ->
    [one] position
   *[other] positions
}
amount-degrees = { $deg }°
amount-shims = { $mm } of shim
amount-mm = { $mm }
centre-mark = the centre mark
notch-of-centre = notch { $n } { $way-w } of centre
mark-original = original mark: { $at }
mark-new = new mark: { $at }
mark-clock = { $n } o'clock
mark-clock-half = half past { $n }
mark-out = straight out
mark-position = position { $n } { $way-w }
mark-degrees = { $deg }° { $way-w } of centre
mark-length = { $mm } { $way-w } of the middle
mark-lean = { $deg }° { $way-w }
mark-middle = the middle
mark-stack = the stack as it is
mark-where-it-stands = mark where it stands, and count
step-turn = one turn
step-shim = one { $mm } shim
step-mm = { $mm }
step-degrees = { $deg }°
step-position = one position
step-notch = one notch ({ $deg }°)

## Checks

at-full-droop = at full droop
at-full-droop-taken = at full droop ({ $taken } taken, not measured)
at-planned-height = at planned height
check-joint = { $which ->
    [upper] upper joint
   *[lower] lower joint
} at { $value } of its { $limit } { $at }
check-shaft = drive-shaft joint at { $value } of its { $limit } { $at }
check-travel = { $now } of { $which ->
    [droop] droop
   *[bump] bump travel
} left, was { $was }; { $least } wanted
check-tie-rod = tie rod { $now } { $way-w } to the wheel, was { $was } { $before-w }; { $most } at most, a usual limit
check-bucket = upper arm { $gap } from the spring bucket at full droop, { $least } wanted
check-arch = { $now } of arch { $where ->
    [ahead] ahead of
   *[behind] behind
} the tyre, was { $was }; { $least } wanted
check-strut = { $now } between tyre and strut, was { $was }; { $least } wanted
check-hose = { $now } of brake hose left at full droop, was { $was }; { $least } wanted
check-thread = { ALL_LOW($name) }: { $now } of thread in, { $least } wanted
check-parallel = track bar and drag link { $value } apart seen from the front, { $most } at most
foul-side = { $side ->
    [left] Left
   *[right] Right
}: { $what }
foul-parts = { $axle-w }: { $what }
foul-at = { $axle-w } { $side-w }: { $what }

## Angles against their windows

angle-inside = inside
angle-off = { $by } { $how ->
    [top_out] top too far out
    [top_in] top too far in
    [more_caster] too much caster
    [less_caster] too little caster
    [toe_in] too much toe-in
    [toe_out] too much toe-out
    [left_higher] left higher
   *[right_higher] right higher
}
angle = { $angle-w }
of-angle = { $by } of { $angle-w }

## Parts

misfit-place = { LOW($part) } takes the place of { LOW($other) }
misfit-beside = { LOW($part) } cannot stand beside { LOW($other) }
misfit-build = { $part }: the upper arm of this car sits on no cross shaft, there is no place for it
misfit-rule = { $part }: { $book } { $rule ->
    [welding] forbids welding
    [cutting] forbids cutting and drilling
    [aftermarket_arms] asks for factory arms
    [spherical_joints] forbids spherical joints
    [moves_pivots] forbids moving pivots
   *[knuckle] forbids another knuckle
}
misfit-needs = { LOW($part) } needs { $what }
needs-toe-adjuster = a toe adjuster beside it
needs-cams = cams on the vehicle
needs-no-cams = plain bolts where its cams go
does-reach = reach ×{ $times } each way
does-sets = { $n } more { $n ->
    [one] thing
   *[other] things
} to set
does-track = track { $by } a side
does-bump = toe swing over height ×{ $times }
does-camber-toe = camber { $camber } · toe { $toe }
does-caster-camber = caster { $caster } · camber { $camber }
does-clash = takes the place of { ALL_LOW($other) }
does-stops = the linkage does not close with it here
costs-toe = Toe shifts { $by } a wheel, reset after.
costs-wheel = Wheel goes { $by } { $way-w } in the arch.

## The verdict of an axle

axle-height = { $axle ->
    [front] Front
   *[rear] Rear
} { $gain }
axle-height-at = { $axle ->
    [front] Front
   *[rear] Rear
} { $gain } { $state }
stop = { $what ->
    [lower_arm] Lower arm does not close
    [upper_arm] Upper arm and knuckle are fully extended
    [tie_rod] Tie rod is fully extended
    [dead_point] Arm is at its dead point
    [strut] Strut and lower arm are in line
    [link] A link is fully extended
    [unsteered] The wheel has no steering axis
   *[no_setting] No setting of the adjusters closes
} at { $at }.
verdict-stop = Height runs out of travel
verdict-stop-at = { $stop } Shown at { $used }.
verdict-fouls-on-aim = On aim, but it fouls
verdict-misfits = Parts that cannot be fitted so
verdict-fouls-off-aim = It fouls, and is off the aim
verdict-fouls = { $each-semi }.
verdict-reached = Both sides land on aim
verdict-reached-read = What was read lands on aim
verdict-not-judged = No angle was read: nothing is judged
verdict-fouls-not-judged = It fouls; no angle was read
verdict-as-built = What is on it does it.
verdict-toe-alone = Toe alone does it.
verdict-parts-on = { $n ->
    [one] One part on.
   *[other] { $n } parts on.
}
verdict-apart = Sides stay too far apart
verdict-apart-by = { $each-and }.
apart-more = { $angle-w } left to right { $by } more apart than { $most }
leave-everything = All angles are in: leave everything.
first-shared = { $name }: { $order }.
first-order = { $name }: left { $left }, right { $right }.
only-rods = Camber and caster are in: turn only the rods.
only-toe = Camber is in: turn only toe.
short-angle = { $side ->
    [both] Both sides
    [left] Left
   *[right] Right
}: { $angle-w } short { $by }
short-side = { $side ->
    [both] Both sides
    [left] Left
   *[right] Right
} short { $by }.
short-within-doubt = Within its doubt of ±{ $doubt }: read again after the first turn.
short-toe-rear = Toe is off, and nothing here sets it that far
short-rods-end = Tie rods run out before toe does
short-cams-end = Cams run out before { $angle-w } does
short-part-ends = { $part } runs out before { $angle-w } does
short-tabs-in = { CAP($angle-w) } is off, and what sets it is held: tabs in the slots
short-seized = { CAP($angle-w) } is off, and what sets it is seized
short-not-looked = { CAP($angle-w) } is off, and nothing ticked sets it: look under it
short-as-built = { CAP($angle-w) } is off, and nothing as built sets it
closest-reaches = Reaches on both sides: { ALL_LOW($part) }.
closest-none = Nothing in the catalogue reaches it.
closest-apart = No single part reaches. Nearest: { ALL_LOW($part) }, sides still { $by } too far apart.
closest-short = No single part reaches. Nearest: { ALL_LOW($part) }, still { $by } short.
watch-far = It stands { $by } { $way-w } than where its points were taken, hub to arch { $design }: put that height right in Arrive before anything here is believed.
watch-bent = { $side ->
    [left] Left
   *[right] Right
}: readings sit { $by } from these points. Measure the points of this side again; if they hold, look for a bent part.
watch-doubt-low = { $side ->
    [both] Doubt dips low on caster, both sides: re-sweep.
    [left] Left: doubt dips low on caster, re-sweep.
   *[right] Right: doubt dips low on caster, re-sweep.
}
why-one = { $name }, not { ALL_LOW($other) }: with each { $each } of { $angle-w } it brings { $got } of { $side-effect-w }; the other would bring { $theirs }.
why-brings-caster = { $name }: camber { $camber }, caster { $caster }
why-brings-toe = { $name }: camber { $camber }, toe { $toe }
why-several = { $each-semi }.
why-edge = It lands close to the edge of the window: the next notch leaves it.

## The verdict of a car

car-reached = All four wheels land on aim
car-one-reached = { CAP($axle-w) } lands on aim; the { $unread-w } was not read
car-refused = { CAP($axle-w) } cannot be worked out
thrust-stays = The rear points { $by } to the { $side-w } and stays so: set the front along it, or the steering wheel stands { $wheel } to the { $side-w }.
thrust-mended = Left as found the rear would put the steering wheel { $wheel } to the { $side-w }.
car-doubt-wide = In, but the doubt is wider than the window ({ $each-and }): read again after the first turn.
car-worst = { CAP($axle-w) }: { LOW($what) }
car-other-reached = The { $axle-w } lands on aim.
car-other-off = { CAP($axle-w) } too: { LOW($what) }.
car-other-refused = The { $axle-w } cannot be worked out.
car-other-unread = The { $axle-w } was not read.
car-heights = { $each }.
car-in = { $axle-w } { $each-and }
car-already-in = Already in: { $each-semi }.
car-first = { $n ->
    [one] One thing
   *[other] { $n } things
} to turn, { $axle-w } { $side-w } { LOW($name) } first: { $order }.
car-first-shared = { $n ->
    [one] One thing
   *[other] { $n } things
} to turn, { $axle-w } { LOW($name) } first: { $order }.

## The search over sets

reason-recovers = Recovers { $each-and }.
reason-as-built = As built: nothing to buy.
reason-costs = Costs: { $each }.
cost-wheel = the wheel { $by } { $way-w } in the arch
cost-lean = { $by } { $way-w } axis lean
cost-scrub = { $by } { $way-w } scrub
cost-bump = { $by } of toe swing over ±{ $over }
reason-elsewhere = { CAP($state) } it is { $by } outside.
reason-short = Stays { $by } short of { $angle-w }.
reason-apart = Sides stay too far apart.
car-as-built = the car as built
part-named = { ALL_LOW($name) }
parts-with = { $first } with { $second }
parts-and-more = { $first } with { $second } and { $n } more
searched-at = { $stop } Searched at { $used }.
car-search-nothing = No pair of sets is left within this money and these hours
car-search-none = Nothing here lands all four wheels; the nearest stays { $by } short
car-search-lands = { $n ->
    [one] One way lands
   *[other] { $n } ways land
} all four wheels on aim
fault-band-turned = { $low } to { $high }
fault-band-higher = the higher end not under the lower
search-nothing-left = Nothing left to choose from
search-loosen = Loosen a filter, or measure a part of your own.
search-lands = { $n ->
    [one] One way lands
   *[other] { $n } ways land
} both sides on aim
search-first = First: { $set }.
search-fouls = What reaches fouls something
search-nearest-fouls = Nearest: { CAP($set) }: { $foul }.
search-none = Nothing in the catalogue reaches it: short by { $by }
search-nearest = The nearest is { $set }.
ways-differ = At full lock the outside wheel stands at { $outer } with { $set } and { $other-outer } with { $other }: axis lean { $lean } against { $other-lean }.
best-money = least money
best-labour = least labour
best-bump = least bump steer
best-axis = axis changed least
best-central = wheel most central in the arch
best-life = longest tyre life

## Points against readings

fit-arm = The { $arm ->
    [upper] upper
   *[lower] lower
} arm's axis is inclined about { $by } more (front { $way-w }) than this shape has it, beyond its doubt: measure it before anything is promised.
fit-tie-rod = The tie rod's inner end is about { $by } { $way ->
    [up] higher
   *[down] lower
} against its outer end than this shape has it, beyond its doubt: measure it before anything is promised.
fit-cost = These readings do not go with this shape: { $cost } where { $most } is the most of ninety-nine cars in a hundred. Another layout, a wrong file, a bent part or a height read wrong: promise nothing from it.
fit-moved = { $point } had to move { $by }: bent part or wrong geometry, measure it again.
fit-odd = { $angle-w } at { $at } does not fit the others ({ $read } read, { $fitted } fitted): read it again.
fit-tie-rod-side = { $told ->
    [ahead] Is the tie rod ahead of the axle? With it behind
   *[behind] Is the tie rod behind the axle? With it ahead of
} the axle these readings fit as well, and cams and slots would turn toe the other way: look.
fit-none-has = no axle of this kind has these measurements: { $why }

## The sheet

tick-roll = Roll { $far }
tick-bounce = Bounce three times
tick-resweep = Re-sweep caster
tick-wheel-straight = Steering wheel straight
name-order = { ALL_LOW($name) } { $order }
side-orders = { $side ->
    [both] both wheels
    [left] left
   *[right] right
}: { $each }
orders = { $each-semi }
step-support = Stand and mark
step-support-how = chock, stands on hard points; paint-mark everything that will be turned
step-height = Set { $axle-w } height
height-of-side = { $target } ({ $change })
height-target = left { $left }, right { $right }, hub to arch
height-by = { $heights }; { $ways-semi }
way-gains = { $way-w } { $gain }
told-road = { $how } Felt: { $felt }
not-read-road = How it drives: no road test was kept since it was worked on.
road-straight = The steering wheel stands straight on the road.
road-off = Steering wheel { $deg }° to the { $side-w }: turn both rods, total toe stays.
road-off-drag = Steering wheel { $deg }° to the { $side-w }: turn the drag link, toe stays.
road-turned-drag = Drag link turned: drive it again.
road-off-nothing = Steering wheel { $deg }° to the { $side-w }, and no rod of each side to turn for it.
road-off-ends = Steering wheel { $deg }° to the { $side-w }, and a rod runs out of thread before it: see whether the wheel or the rack sits off centre.
road-turned = Both rods turned: read toe, then drive it again.
road-no-side = which way is not said
road-no-side-right = left or right: where the top of the steering wheel's rim went
road-not-off = nothing is ordered for the steering wheel
road-not-off-right = drive it first, and say how far off it stands
note-access = Reached: { $text }
note-sockets = Sockets: { $text }
note-torque = Torque, as the shop typed it: { $text }
note-torque-of = { $part }: { $text }, as the shop typed it
step-fit = Fit { ALL_LOW($part) }
step-fit-one = { $side ->
    [left] Left
   *[right] Right
} side only: fit { ALL_LOW($part) }
step-fit-how = bolts snug, not tight
step-cams = { $axle ->
    [front] Cams, both fronts
   *[rear] Cams, both rears
}
step-arms-of-axle = Arms and bars of the { $axle-w } axle
step-arms = { $axle ->
    [front] Front cams, slots, plates and arms
   *[rear] Rear arms, cams and slots
}
step-tie-rods = Tie rods
step-tie-rods-how = wheel straight and locked; { $orders }; read toe, then turn the rest
step-rear-toe = Rear toe
step-rear-toe-how = { $orders }; read toe, then turn the rest
step-tighten = Tighten at ride height
step-tighten-how = wheels on the ground, rubber bushings at rest
gate-fouls = It fouls as planned
gate-fouls-how = { $each-semi }. Plan again, or say why it goes on.
gate-settled = Settle, re-read height
gate-settled-how = No angle counts until height is settled and both sides are read.
gate-rear = Settle, read the rear
gate-front = Settle, re-sweep caster
gate-front-camber = Settle, read camber again
gate-windows = { CAP($each) }; each also near what was expected.
gate-camber = camber { $low } to { $high }
gate-caster = caster { $low } to { $high }
gate-apart = { $left } left and { $right } right
gate-window = { $low } to { $high }
gate-height = heights within { $most } of the plan
gate-wheelbase = wheelbases within { $most } of each other
gate-square = Settle, tape both wheelbases
gate-central = Settle, measure the axle's centre
gate-placed = Settle, tape both wheelbases, measure the axle's centre
gate-centre = axle within { $most } of the middle
gate-toe = total toe { $low } to { $high }
gate-resweep = Caster has to be swept again.
gate-thrust = The front is set to the rear's thrust line.
gate-proved-heights = Heights of both sides once more, after a roll. No angle was read: none is proved.
gate-proved-read = What was read as found, read again after a roll.
gate-proved = Prove, full re-read
gate-proved-car = Camber, caster and toe of both fronts, camber and toe of both rears, after a roll.
gate-proved-front = Camber, caster and toe, both fronts, after a roll.
gate-proved-rear = Camber and toe, both rears, after a roll.
caution-jack = Never trust a jack alone. Air suspension: service mode before lifting, pads at the lift points.
caution-spring = A loaded spring can kill: use a proper compressor or leave it to a shop. Torsion bars: unload first.
caution-droop-and-lock = At full droop and lock check brake hose, sensor wire, drive-shaft and ball-joint angles.
caution-seized = Seized bolt: stop. Do not cut or heat suspension parts.
caution-one-bolt = Loosen one bolt at a time and count from the paint mark. Knock-out tabs must be out.
caution-mark-and-count = Mark before turning, count turns. Keep thread engagement; torque the lock nuts to the maker's figures.
caution-torque = Torque to the maker's figures with bushings at ride height; new bolts where the maker says.
caution-calibrate = Height or thrust changed: headlight aim, camera and radar, and the steering-angle sensor need calibration.
caution-law = More height raises roll-over risk. Lift, bumper height and tyre cover are local law: have it inspected where required.
caution-certifies-nothing = This sheet computes geometry from what it was told. It certifies nothing.

## Places and readings

place = { $axle ->
    [both] { $side ->
        [both] car
       *[one] { $side-w } side
    }
   *[one] { $side ->
        [both] { $axle-w } axle
       *[one] { $side-w } { $axle-w }
    }
}
reading-of = { $place } { $quantity-w }
word-floor-to-arch = height, floor to arch
word-floor-to-frame = height, floor to frame
word-thrust = thrust angle
word-set-back = set-back
word-wheelbase = wheelbase
word-diagonal = diagonal
word-axle-offset = axle off centre
word-rim-runout = rim run-out
word-rim-circle = rim circle
word-tread-depth = tread depth
word-pressure = pressure
word-floor-slope = floor slope
lean-top-out = top leans out
lean-top-in = top leans in
lean-top-back = top leans back
lean-top-forward = top leans forward
lean-toe-in = toes in
lean-toe-out = toes out
lean-points-right = points to the right
lean-points-left = points to the left
lean-right-behind = right wheel behind the left
lean-left-behind = left wheel behind the right
lean-to-left = must go to the left
lean-to-right = must go to the right
lean-falls-left = falls to the left
lean-falls-right = falls to the right
lean-upright = upright
lean-level = level
lean-central = central
lean-straight = straight
lean-left-higher = left higher
lean-right-higher = right higher
lean-left-more = left more
lean-right-more = right more
lean-left-longer = left longer
lean-right-longer = right longer
lean-included = SAI and camber
quantity = { $quantity-w }

## What made a reading stale

done-height = { $axle ->
    [front] height was set
   *[rear] rear height was set
}
done-parts = { $axle ->
    [front] a part was fitted
   *[rear] a part was fitted at the rear
}
done-cams = { $axle ->
    [front] the cams were moved
   *[rear] the rear arms were moved
}
done-tie-rods = { $axle ->
    [front] the tie rods were turned
   *[rear] rear toe was turned
}
stale-after = { $what } after it was read
stale-changed = { $side-w } { $quantity-w } changed after it was read

## What is odd about a reading

odd-jacked = { CAP($which) }: jacked, not rolled since.
odd-jacked-why = A wheel let down from a jack stands on scrubbed tyres: camber reads about { $by } out. Set to zero like that, it drives off at { $by } in.
odd-jacked-settle = Roll it { $far }, bounce it, and read again.
odd-tilted = { CAP($which) }: read with a jack under the other side.
odd-tilted-why = A tilted body leans its wheels with it and moves one side of the suspension.
odd-tilted-settle = Let it down on all four, roll it, and read again.
odd-unsettled = { CAP($which) }: read before it had settled.
odd-unsettled-why = Every angle hangs on the height, and the height had not come to rest.
odd-unsettled-settle = Roll and bounce it, re-read the height, then this.
odd-height = { CAP($which) }: read at { $was }, it stands at { $now } now.
odd-height-why = Every angle hangs on the height.
odd-height-settle = Read it again at the height it stands at.
odd-floor-unknown = { CAP($axle-w) } axle camber counts against gravity, and the floor was not measured.
odd-floor-unknown-why = A floor falling { $drop } over { $run } is { $lean } of camber, out on one side and in on the other.
odd-floor-unknown-settle = Zero the gauge on a bar across both contact patches, or read the floor with a level.
odd-floor-changed = { CAP($which) }: the floor was told otherwise after it was read.
odd-floor-changed-why = With the floor as it is told now it would read { $now }. What is kept stays as it was worked out then.
odd-floor-changed-settle = Read it again, or type the same number again: the floor told now is taken out of it.
odd-floor-pattern = Both axles lean to the { $way-w }: { $front } in front, { $rear } behind.
odd-floor-pattern-why = Two axles rarely go out by the same amount the same way. A floor, a soft tyre or a jack leans both.
odd-floor-pattern-settle = Turn the car round on the same spot and read one wheel again: a floor turns the sign.
odd-weight = Fuel or load is not as it should be, and it could not be taken out.
odd-weight-why = Without spring rates, weight cannot be turned into height.
odd-weight-settle = Fill the tank and empty the car, or enter both spring rates.
odd-levels = Doors open or auto-level on: the height moves between readings.
odd-levels-settle = Shut the doors, switch levelling off, and read a height twice.
odd-steering = Steering not centred: toe of each wheel is off, the total is not.
odd-steering-settle = Centre and lock the wheel, then read one toe again.
odd-plates = Plates stick: the tyres hold the wheels where they were put.
odd-plates-settle = Grease the plates, roll off and on, and read one camber again.
odd-rocked = Steering was not rocked: joints hold some camber back.
odd-rocked-settle = Rock it lock to lock and read camber again.
odd-lost-height = { CAP($which) } lost { $lost } since it was set.
odd-lost-height-why = New springs and bushings settle in the first weeks; the angles read then were at another height.
odd-lost-height-settle = Set the height back, roll it, and read camber, caster and toe again.
odd-bulge = { CAP($which) }: a span of { $span } is on the tyre, and no bulge was taken out.
odd-bulge-why = The bottom of a tyre bulges where it stands, by { $bulge } or so.
odd-bulge-settle = Measure lip to lip, or measure the bulge against the rim.
odd-circle = { CAP($which) }: the circle comes from the stamped size.
odd-circle-why = The lip you touch is larger than the stamped size, by about { $more }.
odd-circle-settle = Measure the rim lip to lip once.
odd-stale = { CAP($which) }: { $why }.
odd-stale-why = Camber and caster moves always move toe, and caster is not live.
odd-stale-sweep = Sweep it again, brakes held.
odd-stale-toe = Read toe again, steering locked straight.
odd-unchanged = { CAP($which) } reads exactly as before the cams were moved.
odd-unchanged-why = Caster is not live: it shows a change only once it is swept again.
odd-unchanged-settle = Sweep it again from the first swing.
odd-pitch = { CAP($which) }: the body turned { $by } { $nose ->
    [up] nose up
   *[down] nose down
} since the visit before.
odd-pitch-why = That much of the change in caster is the body's, not the suspension's.
odd-pitch-settle = Take the body's turn off before comparing with the old value.
odd-marks = Cams at the same marks, { $quantity-w } { $apart } apart left to right.
odd-marks-why = Equal settings that give unequal angles mean a bent knuckle, arm or frame. A caster gap above { $much } on a subframe means the subframe has shifted.
odd-marks-settle = Read SAI on both sides and compare included angles; tape both wheelbases.
odd-rim = { CAP($place) } wheel wobbles: { $by }.
odd-rim-turn = { $by } over one turn
odd-rim-half-turn = { $by } half a turn apart
odd-rim-why = A bent rim gives a different camber and toe wherever it happens to stand.
odd-rim-settle = Read every angle of this wheel half a turn apart, or change the wheel.
odd-included = Included angle { $left } left, { $right } right.
odd-included-why = Included angle belongs to the knuckle and no adjuster changes it. A difference means something is bent.
odd-included-settle = Sweep both sides again with the brakes held; if it stays, look at knuckle and strut.
odd-caster-apart = Caster { $apart } apart left to right.
odd-caster-apart-why = It pulls to the { $way-w }, the side with less. More than { $much } apart is seldom adjustment alone: a shifted subframe, a bent arm or a pushed-back wheel shows so.
odd-caster-apart-settle = Tape both wheelbases and the subframe against the body, then sweep again.
odd-rear-steers = The rear axle points { $by } to the { $way-w }.
odd-rear-steers-why = The rear steers the car: it crabs, and going straight the steering wheel stands off to the { $way-w }.
odd-rear-steers-settle = Set rear toe alike on both sides, or square the axle, before the front.
odd-wheelbases = Wheelbase { $by } shorter on the { $way-w }.
odd-wheelbases-why = An axle is skewed or a wheel stands back. A skewed rear axle steers the car; set-back of a front wheel pulls.
odd-wheelbases-settle = Read set-back at the front; what is left is the rear axle's. Tape the diagonals.
odd-edge-smooth = { $edge ->
    [inner] Inner
   *[outer] Outer
} edge worn and smooth: camber at the height it is driven at, not toe.
odd-edge-smooth-why = Toe leaves sharp feathered edges across the tread. A smooth slope to one edge is camber.
odd-edge-smooth-settle = Read camber at the lowest height it is driven at.
odd-edge-sharp = { $edge ->
    [inner] Inner
   *[outer] Outer
} edge worn and feathered: toe, whatever camber says.
odd-edge-sharp-why = Feathered edges come from toe.
odd-edge-sharp-settle = Read toe with the steering locked straight.
odd-string = { CAP($which) }: strung as if both tracks were alike; they differ by { $by }.
odd-string-why = A string along the rear wheels then runs { $yaw } off the centre line.
odd-string-settle = Say how it was strung, or measure the string from both hubs and set it parallel.
odd-methods = { CAP($which) }: { $one } and { $other } are { $apart } apart.
odd-methods-why = More than both hold together. Rim run-out, a bulge or a wrong span does this.
odd-methods-settle = Roll the wheel half a turn and read again by one of them.
odd-one = { CAP($which) }, { $entry }: one of { $n } stands { $by } away from the others.
odd-one-why = One reading that stands apart is more often a slip than the car.
odd-one-settle = Keep or drop number { $number }, or read it once more.
odd-repeats = { CAP($which) }, { $entry }: repeats are { $by } apart.
odd-repeats-why = The same thing read again should fall closer together than this.
odd-repeats-settle = Find what moves: plates, gauge seat, a joint with play. Then read three times.
odd-minutes = { CAP($which) }: { $read } is a lot of { $quantity-w }. Were these minutes?
odd-minutes-why = Minutes are written { $minutes }'. The model expects about { $expected } here.
odd-minutes-settle = Look at the gauge's unit and type it again with its mark.
odd-sign = { CAP($which) }: the sign is probably turned.
odd-sign-why = The model expects about { $expected } here, and the other sign would fit.
odd-sign-settle = Look which way the top leans and read once more.
odd-far = { CAP($which) } is { $by } from what the model says at this height.
odd-far-why = It expects { $expected } ±{ $half }, { $from }. A wrong reading, a bent part, or points that are not this car's.
odd-far-anchored = from the visit before, moved to this height
odd-far-blind = from the points alone
odd-far-settle = Read it by another method. If it stays, look for a bent part.
odd-inches = { CAP($which) }: { $typed } mm to three decimals. Were these inches?
odd-inches-why = A tape or rule in mm does not show thousandths; a calliper in inches does.
odd-inches-settle = Look at the calliper's unit and type it again with its unit.

## What was made of a reading

waits-plan = Plan
waits-cams = Cams
waits-tie-rods = Tie rods
waits-sign-off = Sign off
waits-compare = Compare
derived-height-gap = { CAP($axle-w) }, left less right
derived-total-toe = { CAP($axle-w) } toe, both
derived-cross-camber = Cross-camber
derived-cross-caster = Cross-caster
derived-thrust = Thrust angle
derived-included = Included angle, { $side-w }
derived-wheelbase-gap = Wheelbase, left less right
aim-inside = inside { $low } to { $high }, as { $aim } wants
aim-edge = at the edge of { $low } to { $high }, as { $aim } wants
aim-outside = { $by } { $quantity ->
    [camber] { $way ->
        [less] too far in
       *[more] too far out
    }
    [caster] { $way ->
        [less] short
       *[more] more than wanted
    }
   *[toe] { $way ->
        [less] too much out
       *[more] too much in
    }
}: { $aim } wants { $low } to { $high }
corrected-floor = Floor { $slope } taken out
corrected-floor-why = The floor falls to the { $way-w }: the { $side-w } top leans { $lean ->
    [out] out
   *[in] in
} by as much.
corrected-floor-along = Floor along { $slope } taken out
corrected-floor-along-why = The floor falls to the { $way-w }, and the steering axis leans with the body.
corrected-jacked = Jacked: { $rule } taken out by rule
corrected-jacked-at = Jacked, { $height } on the jack: { $rule } taken out by rule
corrected-jacked-why = A wheel jacked at its arm reads about { $rule } too far out. How far the raised corner rolls the body is not in its height: roll the car and read again to know.
corrected-jack-height = From { $from } on the jack to { $to } standing
corrected-jack-height-why = What this car's own linkage does between both heights.
corrected-weight = Full tank, empty car: corner { $by } { $way-w }
corrected-weight-why = { $fuel } of fuel missing, { $seats } in the seats, { $cargo } of cargo, over this car's springs.
corrected-bulge = Bulge { $bulge } taken out
corrected-bulge-why = The level stood off the lip by the tyre's bulge, so the gap at the top was too wide by it.
corrected-chord = Chord { $chord }, not { $circle }
corrected-chord-why = Away from the axle's height the tape spans a shorter chord of the wheel.
corrected-string = String { $yaw } off straight
corrected-string-why = Rear track { $rear }, front track { $front }: half the difference over the wheelbase.
corrected-lip = Rim lip { $lip }, not { $seat }
corrected-lip-why = The stamped size, { $stamped }, is the bead seat. The lip you touch stands { $flange } over it on both sides.
corrected-pitch = Body { $pitch } { $nose ->
    [up] nose up
   *[down] nose down
} taken out
corrected-pitch-why = Nose up leans the steering axis back by the same angle.
left-zeroed = Zeroed on this floor
left-zeroed-why = The gauge counts from the floor the wheels stand on, so its slope is not in the reading.
left-jacked = Jacked, not put right
left-jacked-why = No rule of thumb for this one: give the height on the jack and the standing height.
left-weight = Fuel and load not put right
left-weight-why = Spring rates of both axles are not on file, so the weight cannot be turned into height.
doubt-floor = slope of the floor, as measured
doubt-floor-along = slope of the floor along, as measured
doubt-tilted = body tilted by a jack under the other side
doubt-jacked = jacked, not rolled since
doubt-answered-no = { $ask }: answered no
doubt-not-answered = { $ask }: not answered
doubt-rule = rule
doubt-formula = formula
doubt-linkage = linkage
also-across = across
also-half-is-rims = half the difference is the rim's
also-half-turn = half the difference over half a turn
also-each-wheel = each wheel, shared evenly
also-rear-less-front = rear minus front
also-over-circle = over the circle
also-inner = inner
also-centre = centre
also-outer = outer
also-track-bar = track bar, change of length
also-angle = as an angle
also-sai = steering-axis inclination
also-straight-camber = camber straight ahead
also-by-formula = by formula
stamped = size { $size }
note-from-car = { $entry } { $value }, from the car
note-zeroed = zeroed on the floor the wheels stand on
note-floor-unknown = floor slope not known: zero the gauge on the floor, or give the slope
note-no-bulge = no bulge taken out: right on the rim lip, too far in when the level touched the tyre
note-string-outside = string outside the lips: front gap larger is toe-in
note-string-inboard = counted rear minus front, as with the string inboard of the lips; reference=outside turns the sign
note-string-runs = string runs { $yaw } off the centre line
note-lip-better = measured lip to lip would be better than { $circle } from the size
note-rule = { $rule }; a measured circle is better
rule-shop = shop rule: one inch larger
rule-flange = flange height { $flange } twice
note-move-axle = move the axle { $by } to the { $way-w }
note-track-bar = track bar: longer when its axle end is on the { $way-w }, else shorter, by { $by }
note-exact-axis = exact rotation about the axis from both gauge directions
note-exact-linkage = exact rotation on this car's own linkage at this height
note-factor = { $factor } × the camber difference
note-uneven = the two swings are uneven: even ones would take the SAI out
note-no-difference = both cambers are the same: no caster, if the wheel was turned between them
note-body-level = body taken as level on its stands

## Faults

out-of-range = { $value } is outside what is possible
out-of-range-of = { $value } { $unit } is outside what is possible
range = a number from { $low } to { $high }
range-of = a number from { $low } to { $high } { $unit }
not-a-number = not a number is outside what is possible
too-long = longer than { $n } characters
inch-as-mm = an inch reading typed as mm? write { $inches } in; else { $else }
minutes-written = { $range }; minutes are written { $minutes }'
gate-shut = the gate is shut: { $each }
gate-shut-right = all of them
not-read = { $side-w } { $axle-w } { $quantity-w } not read
no-reason = something is off and no reason was given
not-signed = nobody stands for it
not-signed-right = the name of who stands for it
no-reason-right = read again, plan again, or why it goes on, in a few words
no-step = no step "{ $step }" on this sheet
detail-fault = { $field }: { $wrong }; { $right }
detail-nothing-saved = Nothing was saved. What you typed is still here: try again.
detail-full = The server's disk is full. Nothing was saved; what you typed is still here. Whoever runs the server has to make room, then try again.
detail-reads-only = The database can only be read now: it is being moved or looked after. Nothing was saved; what you typed is still here: try again in some minutes.
detail-busy = The database is busy and gave no answer in time. Nothing was saved; what you typed is still here: try again.
detail-refused = This was refused. Nothing was saved; what you typed is still here.
detail-not-yours = { $act ->
    [look] looking at jobs
    [ticket] writing on a ticket
    [measure] taking readings
    [plan] changing a plan
    [turn] closing a step of the sheet
    [gate] opening a gate: a specialist or the owner opens it
    [library] keeping parts, aims and shapes
    [enrol] adding a device
    [settings] changing the shop: its owner does
    [records] the record: its owner sees it
   *[people] managing people: the owner does
} is not this name's to do. What you typed is still here.
detail-unsure = The database went away while this was being saved, so it may be there or not. What you typed is still here: send it again, nothing is stored twice.
not-read-there = { $quantity-w } is not read at the { $place }
not-read-there-right = a wheel, an axle, a side or the car, as it is read
run-of-nothing = a run of nothing
run-of-nothing-right = a drop per a run, such as 1/8 in per 12 in
run-right = the distance between both marks, above 0
no-such-item = no such item
out-of-reach = "{ $typed }" is out of reach
neither = "{ $typed }" is neither
yes-or-no = yes or no
floor-needs-side = a floor slope leans left and right wheels differently
floor-needs-side-right = side=left or side=right
just-mm = { $value }
span-right = the height between both points, above 0
circle-right = the circle measured across, above 0
circle-across-right = the circle the length was measured across
axle-height-right = hub centre above the floor, beside height
nothing-entered = nothing was entered
too-much-camber = { $off } over { $over } is more than { $most }
too-much-camber-right = the offset between top and bottom lip
too-much-lean = { $off } over { $over } is { $lean }
too-much-lean-right = less than { $most } of lean: check which number is which, and their units
too-much-toe = { $off } over { $over } is more than { $most } of toe
too-much-toe-right = rear minus front across the circle given: check the units
too-much-caster = these cambers make { $caster } of caster
too-much-caster-right = less than { $most }: check the signs of the swings and the unit of the cambers
off-the-circle = { $from } from the axle is off a circle of { $circle }
off-the-circle-right = within { $within } of the axle's height
strung-needs = needed when strung from the rear wheels
no-circle = neither a measured circle nor a rim size
no-circle-right = lip to lip, or the stamped rim size
below-lowest = { $high } is below the lowest, { $low }
below-lowest-right = the larger of the two
swings-close = both swings lie within { $within } of each other
swings-close-right = a swing to the other side, left plus and right minus, such as 20 and -20
no-such-axis = no steering axis turns like these four readings
no-such-axis-right = fore-aft tilts at the same two swings, nose up plus, brakes held

## The corner file: what it is, what it means, what to look at

q-roll-centre = Roll centre height
q-roll-centre-up = The axle's roll centre rises: the body leans less, and the tyre is pushed sideways more over a bump.
q-roll-centre-down = The axle's roll centre falls: the body leans more on it in a bend.
q-roll-centre-same = The axle's roll centre stays where it is.
q-roll-centre-look = Look at the slope of the arms: a roll centre far from usual makes the end lean or jack.
q-camber-gain = Camber per { $per } of bump
q-camber-gain-means = At { $roll } of body roll the outside wheel ends { $out } further out at the top than standing.
q-camber-gain-look = The wheel goes the wrong way over bumps here: check the height against the curve.
q-bump-steer = Toe per { $per } of bump
q-bump-steer-straight = Each { $axle-w } wheel keeps its direction over bumps.
q-bump-steer-in = Each { $axle-w } wheel toes in as it is pushed up.
q-bump-steer-out = Each { $axle-w } wheel toes out as it is pushed up.
q-bump-steer-look = It will wander on rough roads: level the tie rods (rack spacer, tie-rod-end spacer) before setting toe.
q-bump-steer-look-rear = It steers from the rear over bumps: fit or set a toe link at this height.
q-bump-scrub = Tyre walks per { $per } of bump
q-bump-scrub-means = The contact patch is dragged { $by } { $way-w } for each { $per } of bump.
q-bump-scrub-look = Steep arms drag the tyre sideways: the tread scrubs on every bump at this height.
q-anti-dive = Anti-dive
q-anti-lift = Anti-lift under braking
q-anti-dive-carries = The links carry { $share } % of what braking would sink the body.
q-anti-lift-carries = The links carry { $share } % of what braking would raise the body.
q-anti-dive-pulls = Braking pulls the body down in front even more through the links.
q-anti-lift-pulls = Braking pulls the body up at the rear even more through the links.
q-anti-look = Tilted pivots make the brakes work the suspension: check the side view.
q-anti-squat = Anti-squat under drive
q-anti-squat-means = Under drive the links carry { $share } % of the squat, if this axle is driven.
q-anti-squat-look = Past 100 % the rear rises under power and the tyres can hop: look at the link angles.
q-upper-joint = Upper ball joint swing
q-lower-joint = Lower ball joint swing
q-joint-above = The joint stands { $by } above where it was designed to.
q-joint-below = The joint stands { $by } below where it was designed to.
q-joint-look = Little swing is left before the stud meets its cone: measure the joint's angle at full droop.
q-shaft = Drive shaft angle, outer joint
q-shaft-steeper = The shaft runs steeper than it came, straight ahead.
q-shaft-flatter = The shaft runs flatter than it came, straight ahead.
q-shaft-same = The shaft runs as it came, straight ahead.
q-shaft-look = A steep shaft wears its joint and pulls under power: check the boots at full droop and lock.
q-track = Track against as it came
q-track-same = The track stays as it is.
q-track-wider = The wheels stand { $by } wider together.
q-track-narrower = The wheels stand { $by } narrower together.
q-track-look = Check the tyres against arch and strut on both sides.
q-droop = Droop the links leave
q-droop-means = The wheel can hang { $by } lower before a link is stretched out; dampers and hoses may stop it sooner.
q-droop-look = Little droop is left: the end tops out over crests. Check hose, sensor wire and shaft at full droop.

q-caster = Caster, left
q-caster-returns = The wheels come back to straight by themselves.
q-caster-light = The steering is light and comes back slowly.
q-caster-look = Steering feel will change: correct caster before the road test.
q-sai = Steering-axis inclination, left
q-sai-means = At lock this lean takes camber toward positive on both wheels; { $value } here.
q-sai-look = Compare the included angle of both sides: a lean far from usual points to a bent part or a moved mount.
q-included = Included angle, left
q-included-means = Lean of the axis and camber together, a size of the knuckle; { $apart } between left and right.
q-included-look = Compare both sides before setting anything: this angle does not change by adjustment.
q-scrub = Scrub radius, left
q-scrub-outside = The tyre meets the road { $by } outside the steering axis.
q-scrub-inside = The tyre meets the road { $by } inside the steering axis.
q-scrub-look = Braking and ruts tug at the wheel: check wheel offset before parts.
q-trail = Mechanical trail, left
q-trail-means = With the tyre's own trail it turns the wheel back with about { $moment } at 0.3 g.
q-trail-look = Trail this far from usual is felt as a dead or a heavy wheel.
q-ackermann = Ackermann at half lock
q-ackermann-less = In a tight turn the inner wheel turns { $by } less than rolling freely asks.
q-ackermann-more = In a tight turn the inner wheel turns { $by } more than rolling freely asks.
q-ackermann-look = The front tyres fight each other in tight turns: look at the tie-rod joints' place.
q-lock-inner = Inner wheel camber at full lock
q-lock-inner-out = At full lock the inner wheel stands { $by } out at the top.
q-lock-inner-in = At full lock the inner wheel stands { $by } in at the top.
q-lock-inner-look = It turns on its edge: more caster or less lean of the axis keeps it flatter.
q-lock-outer = Outer wheel camber at full lock
q-lock-outer-out = The loaded wheel stands { $by } out at the top at full lock.
q-lock-outer-in = The loaded wheel stands { $by } in at the top at full lock.
q-lock-outer-look = A loaded wheel that leans out runs on its shoulder in tight bends.
q-lock-lift = Body lift over the inner wheel at full lock
q-lock-lift-means = Turning to full lock raises that corner { $by }; the wheel falls back from it by itself.
q-lock-lift-look = Heavy to hold at lock: check effort with the engine idling.
q-lock-forward = Inner wheel moves forward at full lock
q-lock-forward-means = The hub swings { $by } { $way-w } as the wheel turns.
q-lock-forward-look = Turn to lock with the body at bump height and look at arch and liner.
q-turning-scrub = Tread dragged turning on the spot
q-turning-scrub-means = A { $width } tread turned to full lock standing still is dragged { $by } edge to edge.
q-turning-scrub-look = Wide tyres wear when parked under lock: let it roll while turning.

q-contact = Front tread on the ground, standing
q-contact-means = Of a { $width } tread about { $carry } carry, by the lean of the worse wheel alone.
q-contact-look = One edge of the tread hangs free when it stands: set camber before judging the tyre.
q-pitch = Body pitch against design, nose up
q-pitch-same = The body keeps its rake; caster gets nothing from it.
q-pitch-adds = The change of rake alone adds { $by } of caster.
q-pitch-takes = The change of rake alone takes { $by } of caster.
q-pitch-look = Headlights, camera and radar look elsewhere at this rake: have them set.
q-wheelbase = Wheelbase, left
q-wheelbase-same = The axles stay the same distance apart.
q-wheelbase-apart = The axles move { $by } apart.
q-wheelbase-together = The axles move { $by } together.
q-wheelbase-look = Look where the tyres stand in their arches, front and rear.
q-thrust = Thrust angle, to the right
q-thrust-skewed = Wheelbases read { $apart } apart, shorter on the { $side-w }: an axle is skewed, whatever toe says.
q-thrust-drawn = Rear toe was not read: this is the drawing's, not the car's.
q-thrust-straight = The rear axle points straight ahead.
q-thrust-points = The rear axle points { $by } to the { $side-w }.
q-thrust-look = Set the rear first: the front is steered to this line.

q-axle-shift = Axle to the left
q-axle-shift-same = The axle stands where it stood.
q-axle-shift-central = The axle stands central.
q-axle-shift-off = The axle stands { $by } to the { $side-w } of the middle.
q-axle-shift-arc = On the track bar's arc the axle comes to stand { $by } to the { $side-w }.
q-axle-shift-look = Centre the axle with an adjustable track bar or a bracket, at ride height.
q-axle-pitch = Axle turns, nose down
q-axle-pitch-same = The axle keeps its angle, and the pinion with it.
q-axle-pitch-caster = Caster goes with it, { $by } { $way-w }; so does the pinion.
q-axle-pitch-pinion = The pinion goes { $by } { $way-w }.
q-axle-pitch-look = Check the propeller shaft's joint angles against each other; they should stay equal.
q-steering-wheel = Steering wheel off centre, right
q-steering-wheel-same = The steering wheel stays where it is.
q-steering-wheel-off = Drag link and track bar do not move alike: the wheel stands { $by } to the { $side-w } going straight.
q-steering-wheel-look = Keep drag link and track bar at one angle and length; then centre the wheel at the drag link.

## Where a linkage stops

unreachable = { $what ->
    [lower_arm] lower arm does not close
    [upper_arm] upper arm and knuckle fully extended
    [tie_rod] tie rod fully extended
    [dead_point] arm at its dead point
    [strut] strut and lower arm in line
    [link] link fully extended
    [unsteered] no steering axis
   *[no_setting] no setting of the adjusters closes
} at { $at } of travel
unreachable-link = { $link }: { $why }
fault-open-at-read = a loop does not close: at the { $side-w } height read ({ $at }) { $why }
fault-measure-joint = points that close at the height that was read; measure that joint again
fault-open-at-height = at the { $side-w } { $axle-w } height read { $why }

## What is worth knowing of a car

car-bent = { $side ->
    [left] Left
   *[right] Right
} { $axle-w }: the readings sit { $by } from these points. Measure that corner's points again; if they hold, look for a bent part.
watch-past-travel = Planned { $axle-w } height is past the travel: { $why }.
watch-warped = The four heights do not lie in one plane: front and rear lean differ by { $by }. Read them again on a level floor, or look for a tired spring.
watch-no-rear = The rear axle is not known: thrust, rear toe and its share of the rake are left out.
watch-turns = One turn of the bolt has given { $mm } ± { $band } after settling, from { $n ->
    [one] { $n } record
   *[other] { $n } records
}.
fault-open-as-came = the { $axle-w } axle does not close at the height it came in at: { $why }
fault-unknown = nothing is known of it
fault-geometry = a geometry
remark-off-ground = wheel: the tyre meets z = { $z }, not the ground at 0; heights count from z = 0

## Tread

toe-in = { $toe } in
toe-out = { $toe } out
lever-toe = Toe to { $toe }
lever-toe-now = each wheel, { $toe } now
lever-camber-less-negative = { $by } less negative camber
lever-camber-less-positive = { $by } less positive camber
lever-from-to = { $from } to { $to }
lever-pressure = Pressure to the placard
lever-pressure-from-to = { $from } to { $to }, cold
lever-height = Drive it at the kindest height
lever-height-at = all the time at camber { $camber }, toe { $toe }
rotation-stay = Leave every tyre where it is
rotation-same-side = Front to rear, same side
rotation-across = Left to right, same axle
rotation-cross-forward = Fronts straight back, rears cross
rotation-cross-rearward = Rears straight forward, fronts cross
rotation-cross-both = Cross all four
rotation-staggered = front and rear sizes differ: nothing goes from axle to axle
rotation-directional = directional tread: nothing changes side unless it is turned on its rim
scene-found = as found
scene-unset = at the planned height, not set
scene-set = set
scene-driven = set, as driven
scene-set-at = set, { $state }
worst = { $where ->
    [inner_edge] inner edge
    [centre] centre
    [outer_edge] outer edge
   *[even] even
}
irregular-toe = toe
irregular-pressure = pressure
irregular-never = no rotation record
irregular-sometimes = rotated now and then
irregular-rotated = rotated
irregular-light = light axle
irregular-camber = camber
irregular-open = open tread
irregular-use = use
irregular-dampers = worn dampers
feather-in = Feathered by toe-in: rough to a hand drawn from inside to outside, smooth the other way.
feather-out = Feathered by toe-out: rough to a hand drawn from outside to inside, smooth the other way.
learned-none = No depth read after its first line yet: three grooves narrow the forecast.
learned-faster = { $n ->
    [one] { $n } depth reading
   *[other] { $n } depth readings
}: wears { $by } % faster than the model at the centre; doubt ×/÷ { $before } to { $after }.
learned-slower = { $n ->
    [one] { $n } depth reading
   *[other] { $n } depth readings
}: wears { $by } % slower than the model at the centre; doubt ×/÷ { $before } to { $after }.
learned-worn = Worn already when its log starts: counted from { $depth }.
note-ratios-firmer = Ratios between settings are firmer than distances.
note-does-not-see = Does not see: heel-and-toe, cupping, flat spots, worn joints, ageing, a tyre that wore under an old alignment.
log-ran-back = odometer ran back: { $at } after { $after }
log-ran-back-right = read the odometer again; this line is left out until then
log-grew = { $groove-w } grew: { $now }, { $was } last time
log-grew-new = { $groove-w } grew: { $now }, { $was } when new
log-grew-right = read that groove again, or check that it is the same tyre
log-both = { $one } and { $other } both run { $side-w } { $axle-w }
log-both-right = write down which of them came off
log-deeper = { $groove-w } is { $by } deeper than the other readings say
log-shallower = { $groove-w } is { $by } shallower than the other readings say
log-odd-right = read that groove again; or load, pressure or use changed in between
diagnosis-stop = Cords, belts or a bulge: the tyre is done. The car is not driven on it, nor aligned on it.
diagnosis-stop-headline = Stop: this tyre is done
diagnosis-start = Say what the tread looks like
diagnosis-two = { $first }, or { $second }
diagnosis-none = No cause is on file
diagnosis-replace = { $cause }: replace before aligning. { $then }

## Faults: what is wrong, and what would be right

fault-not-key = not a key
fault-uuid-made-once-this-write = a UUID made once for this write
fault-carried-another-write-already = carried by another write already
fault-key-made-this-one = a key made for this one
fault-answer-can-written = an answer that can be written
fault-id-something-this-shop = the id of something in this shop
fault-page-size-whole-numbers = page and size as whole numbers
fault-id-address = the id in the address
fault-shipped-aim-this-name = a shipped aim has this name
fault-name-your-own = a name of your own
fault-no-gauge-connected = no gauge is connected
fault-start-server-gauge-its-address = start the server with --gauge and its address
fault-gauge-within-reach-type-angle = a gauge that is on and within reach, or type the angle
fault-try-again = try again
fault-neither-both = neither or both
fault-one-button-one-place = one button, or one place
fault-longer-than-80-characters-not = longer than 80 characters, or not text
fault-few-letters = a few letters
fault-longer-than-500-characters = longer than 500 characters
fault-wish-few-words = the wish in a few words
fault-no-bay = no such bay
fault-no-whole-number = not a whole number
fault-whole-or-empty = a whole number, or empty
fault-ticket-another-car = ticket { $ticket } is another car here: { $vehicle }
fault-row-without-ticket = the row without its number opens a new ticket
fault-plate-another-car = the car with this plate is { $vehicle } here
fault-plate-or-name = its plate or its name, or both as they are here
fault-part-twice = { $id } stands there twice
fault-part-once = each part once; without a side it goes on both
fault-no-side = "{ $text }" is no side
fault-side-left-right = left or right behind the colon, or no colon for both
fault-no-aim-id = no aim "{ $id }"
fault-aims-are = one of { $list }; empty is the first
fault-neither-yes-no = neither yes nor empty
fault-yes-or-empty = yes, or empty
fault-plan-says-otherwise = a plan “{ $name }” is here and says otherwise
fault-plan-other-name = another name, or change the plan that is here
fault-no-kind-of-ticket = "{ $text }" is nothing a ticket is for
fault-kinds-of-ticket = height, arms, put_right, wear, pull, square, chassis or check; empty is height
fault-no-car-of-plate = no car with this plate or name was here before
fault-new-arrival-once = take it in with New arrival once; from then on it is known by its plate
fault-rows-in-table = at most { $n } rows in one table
fault-number-from-1-99-none = a number from 1 to 99, or none
fault-json-document = a JSON document
fault-character-cannot-kept-zero = a character that cannot be kept (zero)
fault-text-without = text without it
fault-one-id = one id
fault-parts-can-written = parts that can be written
fault-json-utf-8 = JSON in UTF-8
fault-name-up-120-characters = a name of up to 120 characters
fault-part-catalogue = a part of the catalogue
fault-job-no-plan-set-yet = the job has no plan to set yet
fault-readings-plan-waits = the readings the plan waits for
fault-step-was-done = a step that was done
fault-reading-another-job = a reading of another job
fault-id-its-own = an id of its own
fault-kept-already-something-else-typed = kept already, with something else typed
fault-1-60-them = 1 to 60 of them
fault-bay-taken = bay { $bay } holds ticket { $ticket }
fault-bay-taken-right = a bay that is free, or none until that car has left it
fault-plate = longer than 20 characters
fault-plate-right = a number plate or fleet number
fault-longer-than-60-characters = longer than 60 characters
fault-order-number = the number as its maker or dealer has it
fault-workbook = no workbook that can be read: { $why }
fault-workbook-right = one sheet with a row of column names, as it is exported here
fault-workbook-large = larger than a table here can be
fault-workbook-cells = at most { $n } cells
fault-longer-than-64-characters = longer than 64 characters
fault-short-answer = a short answer
fault-csv-utf-8 = CSV in UTF-8
fault-not-id = not an id
fault-exported-empty = as exported, or empty
fault-not-time = not a time
fault-rfc-3339-empty = RFC 3339, or empty
fault-time-been-empty-now-set = a time that has been, or empty for now; or set the clock
fault-time-been = a time that has been
fault-value-exported-empty-cell-worked = the value as exported, or an empty cell: it is worked out from what was typed
fault-longer-than-200-characters = longer than 200 characters
fault-short-remark = a short remark
fault-more-than-twelve = more than twelve
fault-twelve-adjusters-fewer = twelve adjusters or fewer
fault-same-hand = two ends of the same hand
fault-same-hand-right = one end left-hand: with both alike a sleeve keeps its length
fault-no-more-than-engaged-comes = no more than is engaged as it comes
fault-range-empty = the range is empty
fault-highest-value-above-lowest = a highest value above the lowest
fault-toe-strut-slot-follows-from = the toe of a strut's slot follows from its tie rod
fault-0-left-out = 0, or left out
fault-arm-live-axle-one-length = an arm of a live axle has one length
fault-same-front-link = the same as the front link
fault-one-measurements-listed-shape = one of the measurements listed with the shape
fault-measured-twice = measured twice
fault-each-measurement-once-mean-both = each measurement once: the mean of both
fault-measurements-marked-odd-taken-again = the measurements that are marked odd, taken again
fault-bold-stance-fit-1 = "bold-stance.fit/1"
fault-readings-at-1-40-heights = readings at 1 to 40 heights
fault-more-than-200 = more than 200
fault-200-travels-at-most = 200 travels at most
fault-nothing-was-read-at-this = nothing was read at this height
fault-camber-caster-toe = camber, caster or toe
fault-this-wheel-does-not-steer = this wheel does not steer, so it has no caster
fault-leave-out = leave it out
fault-too-many = too many
fault-8-levels-40-turns-at = 8 levels and 40 turns at most
fault-name-1-40-characters = a name of 1 to 40 characters
fault-this-point-missing = this point is missing
fault-x-y-z-mm = [x, y, z] in mm
fault-unknown-field-this-layout-no = unknown field: this layout has no such point
fault-unknown-field-this-layout-points = unknown field: this layout has points
fault-points = "points"
fault-two-ends-this-link-not = the two ends of this link are not both there
fault-exactly-five-each-inner-outer = exactly five, each with "inner" and "outer"
fault-four-twelve-lower-left-lower = four to twelve, such as lower_left, lower_right, upper_left, upper_right, track_bar
fault-unknown-field-this-layout-holds = unknown field: this layout holds both sides already
fault-points-right-side-under-their = points of the right side under their own names
fault-quoted = "{ $value }"
fault-no-part-id = no part "{ $id }"
fault-characters = { $n } characters
fault-characters-right = 1 to { $n } characters
fault-no-shape = no shape "{ $id }"
fault-other-address = "{ $id }" under the address of "{ $address }"
fault-utf8-at = not UTF-8 at byte { $at }
fault-step-not-done = "{ $step }" was not done
fault-readings = { $n } readings
fault-clock-minutes = { $n } min ahead of this server's clock
fault-clock-hours = { $n } h ahead of this server's clock
fault-year = the year { $year }
fault-value-typed = { $told }, but what was typed gives { $typed }
fault-name-value = not --name=value
fault-after-equals = a value after the =
fault-no-such-name = { $method } has no such name
fault-no-schema = no schema "{ $name }"
fault-thread-short = { $least } asked of { $has } engaged as it comes
fault-no-measure = this layout has no "{ $what }"
fault-heights = { $n } heights
fault-layout-has-none = unknown field: a { $layout } has none
fault-leave-out-or = leave it out, or "layout": "{ $layout }"
fault-ends-chassis = "chassis" and "axle", each [x, y, z] in mm
fault-ends-inner = "inner" and "outer", each [x, y, z] in mm
fault-dead-point = drawn at or past a dead point: { $what ->
    [lower_arm] lower arm does not close
    [upper_arm] upper arm and knuckle fully extended
    [tie_rod] tie rod fully extended
    [dead_point] arm at its dead point
    [strut] strut and lower arm in line
    [link] link fully extended
    [unsteered] no steering axis
   *[no_setting] no setting of the adjusters closes
}
fault-id-letters = small letters, digits and hyphens, such as upper-arm-12
fault-sizes-count = { $n } sizes
fault-after = { $now } after { $before }
fault-required-and-out = "{ $id }" is required and ruled out at once
fault-part-itself = "{ $id }" is the part itself
fault-name-of-link = the name of a link, in small letters
fault-or-name-of-link = { $list }, or the name of a link
fault-no-point-on-fits = no point "{ $name }" on what it fits
fault-parts = { $n } parts
fault-parts-most = { $n } parts at most
fault-stands-twice = "{ $id }" stands twice, first at { $first }
fault-ring = { $names } need each other in a ring
fault-another-format = "{ $value }" is another format
fault-reading-before = a reading before it in the list
fault-plan-of-job = the id of a plan of this job
fault-job-with-plan = a job with a plan
fault-word-not-known = "{ $word }" is not known
fault-minutes = { $n } minutes
fault-group-such = a group such as upper_arm or shims
fault-leaf-or-empty = leaf, or empty
fault-no-column-named = no column "{ $name }"
fault-columns = columns { $list }
fault-the-columns = the columns { $list }
fault-no-column = no column { $name }
fault-columns-least = at least { $list }
fault-parts-in-table = at most { $n } parts in one table
fault-cells-under = { $cells } cells under { $columns } columns
fault-not-made-here = "{ $id }" is not made, or has no such link here
fault-sizes = sizes { $list }
fault-other-axle = "{ $id }" is for another layout or axle
fault-part-for = a part for a { $layout }
fault-part-carries-both = { ALL_LOW($part) } carries both wheels of this axle
fault-part-on-both = on both sides
fault-an-axle = a { $axle-w } axle
fault-part-and-adjuster = a part and an adjuster
fault-neither-part = neither part nor adjuster
fault-part-brings = the part brings { $n } adjusters
fault-not-fit = "{ $id }" does not fit this axle
fault-size-not-made = { $size } is not made
fault-one-of = one of { $list }
fault-too-many-free = too many adjusters at once: { $n } are free, and the parts bring theirs
fault-no-leaves = this axle is not on leaf springs, so it has no { $way-w }
fault-layout-no-way = a { $layout-w } has no { $way-w }
fault-entries-most = up to { $n } entries of up to { $long } characters
fault-no-such-entry = { $method } has no such entry
fault-no-choice = no choice "{ $word }"
fault-no-method = no method "{ $word }"
fault-first-line = a first line with at least { $list }
fault-first-line-commas = a first line with at least { $list }, cells parted by commas
fault-unknown-column = unknown column "{ $name }"
fault-rows-more = more than { $n } rows
fault-none-of-them = "{ $word }" is none of them
fault-not-usable = not a usable number
fault-plain-or-empty = a plain number, or empty
fault-as-exported = as exported, or empty
fault-name-text = name=text; name=text, such as top=15mm; bottom=0; span=320mm
fault-no-name-text = no name=text
fault-setups = { $n } setups
fault-no-answer-word = "{ $word }" is no answer
fault-bare = { $value }
fault-one-cars-tyres = one car's tyres
fault-as-many-cells = as many cells as there are columns
fault-row-each-line = one row for each line of a tyre's log
fault-number-from = a number from { $low } to { $high } { $unit }
fault-letters = { $n } letters
fault-mark-right = a serial or chalk mark of 1 to 40 letters
fault-empty = empty
fault-the-odometer = the odometer, km
fault-no-place = "{ $word }" is no place
fault-places = left front, right front, left rear, right rear or off
fault-by-semicolons = columns parted by semicolons
fault-by-tabs = columns parted by tabs
word-double-wishbone = double wishbone
word-strut = strut
word-five-link = five link
word-single-arm = single arm
word-solid-axle = solid axle
word-twist-beam = twist beam
fault-yes-or-no = yes or no
fault-depths-partly = one or two depths of three
fault-depths-all = inner, centre and outer, or none of them
fault-key-not-there = nothing in the list has this key
fault-key-of-last = the key of the last row of the page before
fault-not-read = not read
fault-read-it-first = read it first
fault-points-front-axle = the points of the front axle
fault-format-not-known = format { $format } is not known
fault-format-known = format { $format }
fault-longer-than-120-characters = longer than 120 characters
fault-shorter-name = a shorter name
fault-points-few-millimetres-away-from = points a few millimetres away from where the parts lie in one line
fault-this-front-axle-no-steering = this front axle has no steering axis: nothing in it is turned by the steering
fault-layout-tie-rod-link-named = a layout with a tie rod, a link named "tie", or a solid axle with its steering_axis
fault-6-questions-4-answers-at = 6 questions with 4 answers at most
fault-high-end-at-above-low = a high end at or above the low end
fault-no-data = no data for it
jig-cannot = this corner cannot stand so
jig-cannot-right = less of it: a joint, an arm or the rack is at its end
fault-one-methods-listed = one of the methods listed
fault-named-twice = named twice
fault-not-number = not a number
fault-what-was-read = what was read
fault-no-reading = no such reading
fault-no-plan = no such plan
fault-what-shop-calls = what the shop calls it
fault-front-axle = a front axle
fault-rear = "rear"
fault-rear-axle = a rear axle
fault-front = "front"
fault-unreadable = unreadable
fault-list-parts = a list of parts
fault-longer-than-300-characters = longer than 300 characters
fault-one-sentence = one sentence
fault-fits-no-layout = fits no layout
fault-at-least-one-layout = at least one layout
fault-fits-no-axle = fits no axle
fault-front-rear-both = front, rear or both
fault-moves-nothing = moves nothing
fault-at-least-one-edit-adjuster = at least one edit or adjuster
fault-shorter-list = a shorter list
fault-1-24-sizes = 1 to 24 sizes
fault-sizes-rising-order-each-once = sizes in rising order, each once
fault-mm = mm or °
fault-one-other = one or the other
fault-another-part = another part
fault-no-pivot = no pivot
fault-at-least-one-pivot = at least one pivot
fault-one-each = one of each
fault-chain-ends = a chain that ends
fault-rows-can-written = rows that can be written
fault-json-docs-parts-md-shows = JSON as docs/PARTS.md shows it, or an empty cell
fault-whole-minutes-0-more = whole minutes, 0 or more
fault-group-upper-arm = a group such as upper_arm
fault-row-column-names = a row of column names
fault-rows-comma-parted-cells = rows of comma-parted cells
fault-too-many-rows = too many rows
fault-one-cell-column = one cell a column
fault-no-rows = no rows
fault-one-row-each-part = one row for each part
fault-height-at-which-both-sides = a height at which both sides close
fault-id-part-catalogue = the id of a part in the catalogue
fault-more-than-eight-ways = more than eight ways
fault-eight-fewer = eight or fewer
fault-more-than-eight-parts = more than eight parts
fault-eight-parts-fewer = eight parts or fewer
fault-no-axle-was-read-yet = no axle was read yet
fault-heights-angles-both-wheels-one = heights and angles of both wheels of one axle at least
fault-bold-stance-plan-1 = "bold-stance.plan/1"
fault-unusable = unusable
fault-plan-can-worked-out = a plan that can be worked out
fault-way-this-axle = a way this axle has
fault-more-than-forty-records = more than forty records
fault-40-at-most = 40 at most
fault-this-front-axle-no-steering-2 = this front axle has no steering axis
fault-layout-steers-tie-rod-link = a layout that steers: a tie rod, a link named "tie", or a solid axle with its steering_axis
fault-more-than-eight = more than eight
fault-eight-levels-fewer = eight levels or fewer
fault-more-than-forty-heights = more than forty heights
fault-readings-at-40-heights-at = readings at 40 heights at most
fault-heights-at-which-axle-closes = heights at which the axle closes
fault-bold-stance-part-1 = "bold-stance.part/1"
fault-one-two = one of the two
fault-where-adjuster-set = where the adjuster is set
fault-no-position = no position
fault-id-shipped-part = the id of a shipped part
fault-this-part-comes-one-size = this part comes in one size
fault-no-size = no size
fault-part-fits = a part that fits
fault-more-than-four-parts = more than four parts
fault-four-parts-axle-at-most = four parts an axle at most
fault-axle-was-read = an axle that was read
fault-bold-stance-settings-1 = "bold-stance.settings/1"
fault-left-out-but-this-wheel = left out, but this wheel steers
fault-degrees-top-rearward-positive = degrees, top rearward positive
fault-lock-some-them-fit-fewer = lock some of them, or fit fewer parts that turn
fault-number-its-unit = a number with its unit
fault-more-than-reading = more than a reading has
fault-angles-lengths-mixed = angles and lengths mixed
fault-all-repeats-one-kind = all repeats in one kind
fault-every-repeat-was-dropped = every repeat was dropped
fault-at-least-one-counts = at least one that counts
fault-fewer-at-time = fewer at a time
fault-more-than-eight-wheels = more than eight wheels
fault-wheels-ran = the wheels it ran on
fault-limit-below-depth-when-new = a limit below the depth when new
fault-one-twelve-setups = one to twelve setups
fault-all-shares-zero = all shares are zero
fault-share-above-zero = a share above zero
fault-bold-stance-wear-1 = "bold-stance.wear/1"
fault-no-question = no such question
fault-id-question = the id of a question
fault-no-answer = no such answer
fault-answer-question = an answer of the question
fault-weight-from-10-10 = a weight from −10 to 10
fault-one-questions-listed = one of the questions listed
fault-no-mark = no mark
fault-serial-chalk-mark-1-40 = a serial or chalk mark of 1 to 40 letters
fault-more-than-500-lines = more than 500 lines
fault-one-tyre-life = one tyre's life
fault-log-can-written = a log that can be written
fault-weights-cannot-used = the weights cannot be used
fault-names-weights-zero-more-do = names with weights of zero or more that do not all vanish
fault-bytes-not-utf-8 = bytes that are not UTF-8
fault-table-saved-csv-utf-8 = a table saved as CSV, UTF-8
fault-columns-parted-commas = columns parted by commas
fault-quote-not-closed-table-cut = a quote is not closed: the table is cut off
fault-whole-file-saved-sent-again = the whole file, saved or sent again
fault-fields-kinds-values-documented-format = the fields and kinds of values that the documented format has
fault-one-json-document-only = one JSON document only
right-length = a length such as 498, 498mm, 19 5/8in, 0.245in or 5 ft 6
right-angle = an angle such as -0.4, 2.25deg, 0°24', 24' or 5/8 in over 5 ft 6
right-mass = a mass such as 80 kg or 180 lb
right-fuel = litres or gallons, such as 20 l or 5 gal
right-pressure = a pressure such as 240 kPa, 2.4 bar or 35 psi
right-number = a plain number such as 38600 or 12.5
unread = "{ $text }" cannot be read
unread-either = "{ $text }" can be { $point } or { $whole }
unread-either-right = { $point } with a point, or { $whole } without the comma
unread-angle-unit = "{ $text }" has an angle unit
unread-is-length = "{ $text }" is a length
right-tyre = a size such as 285/70R17, LT265/75R16 or 33x12.50R15
unread-tyre = "{ $text }" is not a tyre size
tyre-section = a section of { $value } is outside { $low } to { $high }
tyre-aspect = an aspect of { $value } % is outside 20 to 95
tyre-rim = a rim of { $value } in is outside 10 to 26
tyre-radius = { $radius } under a tyre of { $across } across
tyre-radius-right = wheel centre over the floor, { $low } to { $high }; about { $usual } is usual
fault-close-over = points that close over at least { $by } up and down; measure that joint again
fault-loop-opens = the loop opens at { $at } of travel: { $why }
fault-loop-opens-right = on the right the loop opens at { $at } of travel: { $why }
fault-limit-not-below = { $limit } is not below the { $new } of a new tyre
fault-window-backwards = the window runs backwards, { $low } to { $high }
fault-apart = at least { $by } between them
fault-off-line = a point at least { $by } off that line
fault-lower-pivots-one = the lower arm's two pivots are one point
fault-lower-open = the lower loop does not close: its ball joint lies on the pivot axis
fault-tie-no-length = the tie rod has no length
fault-tie-open = the tie-rod loop does not close: its joint lies on the steering axis, so it cannot steer
fault-link-no-length = the link has no length
fault-hinge-one = the hinge's two ends are one point
fault-hinge-through-wheel = the wheel centre lies on the hinge: it cannot rise
fault-drag-no-length = the drag link has no length
fault-hinges-one = the two hinges are one point
fault-hinges-through-wheel = the wheel centre lies on the hinge line: it cannot rise
fault-upper-pivots-one = the upper arm's two pivots are one point
fault-joints-one = the two ball joints are one point
fault-upper-open = the upper loop does not close: its ball joint lies on the pivot axis
fault-upper-below = the upper ball joint is not above the lower one
fault-above-lower = z above the lower ball joint's
fault-strut-no-length = the strut has no length
fault-strut-below = the strut's top is not above the lower ball joint
fault-so-many-links = { $n } links
fault-so-many-locate = { $n } links locate the axle
fault-none-of-it = nothing of this kind on this layout
fault-layout-has-no = this layout has no "{ $word }"
fault-no-cam-bolt = a cam bolt at the strut is not on this layout
fault-strut-only = an adjuster of a strut only
fault-no-wedge = a wedge is not on this layout
fault-live-axle-only = an adjuster of a live axle only
fault-no-sleeve = an axle-end sleeve is not on this layout
fault-steered-live-axle = a live axle that steers
fault-no-joint = this joint of a knuckle is not on this layout
fault-joint-it-has = a joint that the knuckle has
fault-no-arm = this arm is not on this layout
fault-arm-of-three = an arm of three points
fault-no-offset = an offset of an axle-end joint is not on this layout
fault-no-kingpin = a kingpin to lean is not on this layout
fault-live-axle = a live axle

# What can be turned, as found
turn-place = { $place ->
    [lower_front] lower arm, front pivot
    [lower_rear] lower arm, rear pivot
    [upper_front] upper arm, front pivot
    [upper_rear] upper arm, rear pivot
    [upper] upper arm, both its links
    [lower] lower arm, both its links
    [upper_links] pair of upper links
    [lower_links] pair of lower links
    [tie] tie rod
    [strut_top] strut top, in and out
    [strut_top_along] strut top, fore and aft
    [clamp] strut to knuckle
    [hub] behind the hub
    [kingpin] under the spring
    [axle_end] upper ball joint
    [track_bar] track bar
    [drag_link] drag link
    [toe_link] toe link
    [camber_link] camber link
    [hinge_outer] hinge, outer end
    [hinge_inner] hinge, inner end
   *[link] { $link }
}
offer-name = { $kind ->
    [cam] Cam, { $place }
    [slot] Slot, { $place }
    [shims] Shims, { $place }
    [thread] Thread, { $place }
    [cam_bolt] Cam bolt, { $place }
    [strut_slot] Slot, { $place }
    [top_plate] Plate, { $place }
    [bushing] Bushing, { $place }
    [hub_shim] Shim, { $place }
    [wedge] Wedge, { $place }
   *[sleeve] Sleeve, { $place }
}
offer-no-strut = no strut
offer-no-live-axle = no live axle
offer-no-axle-end = no live axle that steers
offer-no-hub = not here
offer-no-upper-shaft = no upper arm on a shaft
offer-no-link = no link
offer-no-pivot = no pivot
fault-sides-unlike = not the same list on both sides
fault-sides-unlike-right = the same adjusters left and right, each as it stands there
size-cam = { $n } notches, ±{ $throw } { $known-w }
size-bushing = any angle, ±{ $throw } { $known-w }
size-cam-bolt = ±{ $deg }° { $known-w }
size-slot = { $low } to { $high } { $known-w }
size-shims = { $low } to { $high }, thinnest { $step }
size-thread = { $pitch } mm a turn, { $ends ->
    [one] one end
   *[other] left and right hand ends
}, { $shorter } shorter, { $longer } longer
size-degrees = { $low } to { $high }° { $known-w }
size-sleeve = { $deg }°, { $n } positions
stands-not-here = none here
stands-unseen = not looked
stands-here = as it is
stands-centre = centre
stands-notches = { $n } { $way-w }
stands-degrees = { $deg }° { $way-w }
stands-turns = { $n } turns { $way-w }
stands-mm = { $mm } { $way-w }
nothing-turns = { CAP($each-and) }: nothing turns them.
nothing-ticked-turns = { CAP($each-and) }: nothing ticked turns them. Look, then tick.

angle-expected = expected, not read
angle-of-axle = { $axle-w } { $angle-w }
expected-angle = { CAP($axle-w) } { $angle-w } not read: { $left } left, { $right } right expected ±{ $band }; ±{ $then } once read.
car-heights-only = No angle was read: what is shown is expected
car-partly = { CAP($read-and) } on aim; { $unread-and } not read
leave-unread = Nothing is turned for what nobody read.
leave-what-was-read = What was read is in: leave everything.
leave-seized = seized: leave it where it is
leave-tabs = tabs in: it cannot turn
leave-not-here = none on this side

found-at-wheel = { CAP($side-w) } { $axle-w }: { $what }
found-at-axle = { CAP($axle-w) }: { $what }
car-stop = Stop: { $what }
named-at-wheel = { $side-w } { $axle-w }, { LOW($item) }: { $found }
named-at-axle = { $axle-w }, { LOW($item) }: { $found }
step-repair = First what was found
step-repair-how = { $each-all } Tick it once it is done; read again what it touches.
fault-no-such-item = nothing on the list
fault-side-not-fit = the side does not fit it
fault-of-each-wheel = left or right: it is looked at on each wheel
fault-of-the-axle = no side: it is looked at once on the axle
search-by-what-was-read = Judged by what was read alone.
fault-nothing-to-judge = no angle of this axle was read
fault-read-an-angle-first = camber, caster or toe of both wheels read first: sets are ranked by them

## A live axle that stands askew

verdict-askew = The axle stays askew
square-nothing-turns = Wheelbase { $by } shorter on the { $side-w }: the axle is askew, and nothing on its lower arms is known to turn.
square-too-far = Wheelbase { $by } shorter on the { $side-w }: no length of the lower arms squares that. Look for a bent arm, mount or frame.
square-short = Wheelbase { $by } shorter on the { $side-w }: the lower arms run out of thread, { $left-over } stays.
square-binds = Wheelbase { $by } shorter on the { $side-w }: the lower arms bring both to { $to }. The other links give { $gives } for it: look whether their bushings bind.
square-lands = Wheelbase { $by } shorter on the { $side-w }: the lower arms bring both to { $to }. Leave the upper ones.
placed-square = { $axle-w } axle squared
placed-centred = { $axle-w } axle centred
car-placed = { CAP($each-and) }; no angle was read

## Heights of a chassis, and what a ticket is for

fault-no-arm-to-level = this axle has no arm whose rise is known
fault-another-target = a height, or a level frame
fault-arm-out-of-travel = the arm does not come to that within its travel
fault-nearer-level = an angle nearer to how it lies now
ticket-kind = { $kind-w ->
    [height] Lift or lower
    [arms] Arms or links replaced
    [put_right] Put right after others
    [wear] Wear complaint
    [pull] Pull or wander
    [square] Centre and square an axle
    [chassis] Chassis without its body
   *[check] Check only
}
ticket-how = { $kind-w ->
    [height] Heights first, then angles at the height it will have.
    [arms] Angles as found, then what the new arms make of them.
    [put_right] Everything is read, rear too: nothing others did is taken for granted.
    [wear] Tread and pressure first: what wore it is looked for before anything is turned.
    [pull] Pressure, heights, then both axles: what steers it is looked for.
    [square] Wheelbases and plumb line: track bar and lower arms, nothing else.
    [chassis] Floor to frame in place of arches; the arms are laid as they will lie, weight comes later.
   *[check] Read and forecast. Nothing is planned or turned.
}
waits-look = A look
waits-diagnose = Causes
waits-square = Squaring

## Notes and photos

fault-note-or-photo = a few words, or a photo
fault-notes-most = { $n } notes at most: strike one out
fault-photos-most = { $n } photos at most: strike one out
fault-photo-half = a photo without its size, or a size without its photo
fault-photo-whole = both, or neither
fault-no-jpeg = no JPEG picture
fault-jpeg-right = a photo as JPEG
fault-photo-large = larger than is kept
fault-photo-at-most = { $kb } kB at most
fault-photo-side = { $px } pixels at most along its longer side

## Wheel off, levels from horizontal, a gauge's own scale

level-leans = { $by } off upright, but which way?
level-leans-right = the top of the wheel in or out
doubt-held = the hub held up
doubt-held-anywhere = the hub held at a height nobody taped
left-held = height of the hub not told
left-held-why = The reading stays as it was read: tape hub centre to arch as it is held.

## Windows as a maker's sheet has them

fault-known-typed = what a part was found to do, typed
fault-known-typed-right = nothing: it is worked out from the cars that were accepted
fault-no-window = no window
fault-window-like = a value ± another, or from one to another: 0.5 ± 0.75, 1/16 to 1/8 in, 7/16 ± 1/4 in over 17 in
fault-angle-over-circle = an angle is not told over a circle
fault-offset-no-circle = over which circle?
fault-offset-circle = an offset over a rim size or a measured circle, such as over 17 in
fault-caster-length = caster is an angle
fault-caster-angle = degrees, such as 3.2 to 4.7

## A wheel measured moving, shapes of the shop

fault-heights-moving = { $few } to { $most } heights of one wheel

moving-fits = { $n } heights and the points go together: the points are brought to the readings
moving-does-not-fit = This layout with these points does not fit these readings: nothing is moved by them. Look whether it is the layout, the side, the unit or the sign.
fault-right-own-points = the right side has points of its own
fault-measure-left = the left wheel
fault-shape-there = a shape of this name is kept already
fault-another-name = another name

## How high, how low

fault-sets-most = { $n } sets at most
ladder-travel = the axle goes no farther
ladder-apart = left and right too far apart
ladder-angle = { $angle-w } gives out
ladder-as-built = as built
ladder-set = { $each-and }
ladder-to = { $set } to { $top }
ladder-nothing = Nothing here reaches the aim at any height looked at
ladder-says = { $each }
ladder-says-nothing-above = { $each }; nothing above

explain-nothing = Nothing odd: readings scatter as they do.
explain-reversed = { $name } was turned the other way.
explain-miscounted = { $name } was counted one step wrong.
explain-slipped = { $name } slipped while it was tightened.
explain-gain = { $name } moves more or less than it is said to.
explain-mixed = { $name } and { $other } were mixed up.
explain-height = The height is not what was told: not settled, or read elsewhere.
explain-jacked = It was read on the jack.
explain-caster-old = Caster was not swept again: it is the old figure.
explain-sign = A sign is turned round.
explain-zero = The floor or the gauge's zero is another one than before.
explain-steering = Toe was read with the steering wheel off centre.
explain-points = A part is bent, or the points are not where they were told to be: one wheel alone cannot tell these apart.

look-marks = Look at the marks of what was turned and count again.
look-throw = Measure what was turned itself: a cam from wall to wall, a thread's pitch.
look-height = Roll it, bounce it, tape this corner's height again.
look-rolled = Roll it off the jack and read it again.
look-sweep = Sweep caster again.
look-zero = Zero the gauge on this floor and read it again.
look-steering = Centre the steering wheel, lock it, read toe again.
look-part = Read the other wheel, and look at the knuckle and its arms.

## The car comes back

back-already = it was taken in just now
back-already-right = once for every time it comes
back-after = Back after { $days ->
    [one] one day
   *[other] { $days } days
}.
back-after-far = Back after { $days ->
    [one] one day
   *[other] { $days } days
} and { $far }.
back-tape = Roll it, then tape its heights
back-so-far = { $n } of { $of } corners as said so far
back-too-far = { CAP($side-w) } { $axle-w } settled { $by } too far
back-fell = { CAP($side-w) } { $axle-w } fell { $by } since it was set
back-high = { CAP($side-w) } { $axle-w } stands { $by } too high
back-trimmed = Trimmed: roll it, bounce it, tape it again
back-at-rest = It came to rest where we said
back-stands = It stands as it was set
back-others = { $n ->
    [one] One other came to rest where we said.
   *[other] The other { $n } came to rest where we said.
}
back-others-stand = { $n ->
    [one] One other stands as it was set.
   *[other] The other { $n } stand as they were set.
}
back-open = { $n ->
    [one] One corner is not taped.
   *[other] { $n } corners are not taped.
}
back-turned-by-what = Say what is turned for height there, and it says how far.
trim-order = { $turns } { $n ->
    [one] turn
   *[other] turns
} { $way-w }
trim-usual = One turn is usually worth { $mm } at the arch.
trim-shop = One turn gave about { $mm } at the arch on { $n ->
    [one] one car
   *[other] { $n } cars
} of the shop.
trim-learned = { $n ->
    [one] One turn is worth { $mm } at the arch here, by one that was recorded.
   *[other] One turn is worth { $mm } at the arch here, by { $n } that were recorded.
}
trim-not-there = nothing is to be trimmed there
trim-not-there-right = a corner that came back out of its ring and was taped since
look-past = that day is gone
look-past-right = today or later
not-closed = this job is open
not-closed-right = a job that was closed

## What the owner is told

told-not-finished = Not finished: nobody stands for it yet
told-off-plan = Handed over with something off: { $what }
told-turned = { CAP($side-w) } { LOW($name) }: { $order }
told-turned-again = { CAP($side-w) } { LOW($name) } again: { $order }
told-turned-really = { CAP($side-w) } { LOW($name) }: { $order } ordered, { $really } done
told-not-turned = { CAP($side-w) } { LOW($name) }: could not be turned
told-height-of = { $axle-w } height
told-trimmed = Height trimmed when it came back
came-high = The { $side-w } { $axle-w } stood { $by } higher than the other side.
came-caster = The { $side-w } front wheel had { $by } less caster than the other.
came-thrust = The rear axle pointed { $by } to the { $side-w }.
watch-torque = Bolts opened here: check their torque after 100 km by the maker's figures.
watch-headlights = Headlights: aim them, the nose is { $by } { $way-w } than before against the tail.
watch-headlights-level = Headlights: check their aim, the car stands at another height.
watch-sensors = Camera, radar and steering-angle sensor: have them calibrated where the maker asks for it. Not done here.
watch-approval = Another height can need approval. Ask locally.
watch-found = Seen, not mended here: { $what }.
angle-named = { $angle-w }
not-read-of = { CAP($side-w) } { $axle-w }: { $each-and } not read after the work.
not-read-brakes = Brakes, balance and rims: not looked at.
not-read-holds = Figures hold for this load, these tyres and these pressures.

## What was said, what came

proved-nothing-asked = Nothing is asked of this car at the end
proved-not-worked = Nothing is turned yet
proved-read-it = Read it: what was said waits for what came
proved-so-far = { $n } of { $of } wheels on aim so far
proved-all-in = { $n ->
    [one] The wheel stands on aim
   *[other] All { $n } wheels stand on aim
}
proved-wheel-off = { CAP($side-w) } { $axle-w } { $angle-w } { $by } { $way-w }
proved-apart = { CAP($axle-w) } { $angle-w } { $by } too far apart
proved-toe-off = { CAP($axle-w) } toe { $by } out of its window
lies-wheelbase = { CAP($axle-w) } axle: wheelbases { $was } apart as found, { $now } now.
lies-wheelbase-now = { CAP($axle-w) } axle: wheelbases { $now } apart now.
lies-centre = { CAP($axle-w) } axle: { $was } off the middle as found, { $now } now.
lies-centre-now = { CAP($axle-w) } axle: { $now } off the middle now.
lies-untaped = { CAP($axle-w) } wheelbases: not taped after the work.
lies-unmeasured = { CAP($axle-w) } axle's centre: not measured after the work.
proved-askew = { CAP($axle-w) } axle askew: wheelbases { $by } apart
proved-off-centre = { CAP($axle-w) } axle { $by } off the middle
proved-not-placed = { CAP($axle-w) } axle: { $what-w } not measured since the work
proved-placed = It lies as it should, as measured since the work.
proved-others-on-aim = { $n ->
    [one] One other wheel is on aim.
   *[other] The other { $n } are on aim.
}
proved-open = { $n ->
    [one] One wheel is not read since the work.
   *[other] { $n } wheels are not read since the work.
}
proved-otherwise = { $n ->
    [one] One wheel came off what was said, yet on aim: leave it.
   *[other] { $n } wheels came off what was said, yet on aim: leave them.
}
proved-as-said = All came as said.

left-nothing = Nothing left to turn: it stands in its windows.
left-turn = { $n ->
    [0] Left to turn. Followed to the letter it lands less than once in 10: what was read is rough, read it again first.
    [one] Left to turn. Followed to the letter it lands once in 10.
   *[other] Left to turn. Followed to the letter it lands { $n } times in 10.
}
left-nearest = Left to turn. It comes nearer, not into its windows.
left-again = Read it again before anything is turned: it came odder than once in a hundred, so nothing was learned of it. If it comes the same twice, orders go by it.
left-between-front = Toe last: turn the others, read toe, then the tie rods by what it shows.
left-between-rear = Toe last: turn the others, read camber and toe, then what sets toe by what it shows.
left-short = Out of its windows, and nothing that can be turned brings it nearer by what a gauge can tell.
jack-no-height = hub to arch { $height } cannot be had
jack-hangs-right = a height near the planned { $from }, or as far as the wheel hangs
whole-tape-it = Both wheelbases were not taped since its arms were turned.
whole-square = Square: wheelbases { $apart } apart, { $most } is left alone.
whole-centre-it = Its centre was not measured since the track bar was turned.
whole-central = Central: { $off } off, { $most } is left alone.
whole-off-centre-bar = The axle stands { $off } too far to the { $side-w }: turn the track bar on.
whole-off-centre = The axle stands { $off } too far to the { $side-w }: turn the track bar on, the drag link after it.
whole-off-centre-ends = The axle stands { $off } too far to the { $side-w }, and the track bar turns no farther: look for a bent mount or a bar of another length.
left-gain = { CAP($name) } does { $times } times what it is said to.
left-not-there = nothing is left to turn there
left-not-there-right = an axle that was turned and then read, and is not in its windows
as-done-not-ordered = { $name } was not ordered
right-count = a count such as 3, 1 3/4 or -2
as-done-count = { $n }
as-done-length = { $mm }
as-done-degrees = { $n }°
as-done-past-end = { $text } is past its end
as-done-between = { $low } to { $high } from where it stood, counted the ordered way
as-done-before = { $step } was marked done before, and what was turned then is kept
as-done-before-right = undo it first, then mark it with what was really turned

# People and the door.
fault-nobody-named = nothing was entered
fault-name-as-called = a name, as it is called in the shop
fault-pin-right = four to eight digits, not all the same and not counting up or down
fault-pin-digits = something in it is no digit
fault-pin-length = { $n } digits
fault-pin-same = every digit is the same
fault-pin-counts = its digits count up or down
fault-pin-wrong = wrong; { $left } { $left ->
    [one] try
   *[other] tries
} left before a wait of two minutes
fault-pin-wrong-right = the PIN of this name; the owner sets a new one
fault-passphrase-right = { $n } characters or more, such as four words that do not belong together
fault-passphrase-short = { $n } characters
fault-passphrase-common = it is one that is tried first
fault-not-at-bench = this name has no PIN here
fault-not-at-bench-right = a name on this bench; the owner sets its PIN
fault-not-a-device = this device does not belong to a shop
fault-not-a-device-right = the code of a device that does, or name and passphrase
fault-not-let-in = wrong, or not known here
fault-not-let-in-right = the name and passphrase as the owner set them
fault-code-wrong = not the code of now, or used already
fault-code-wrong-right = the six digits your other device shows
fault-has-an-owner = this shop has an owner already
fault-has-an-owner-right = sign in, or ask the owner
fault-slip-wrong = not the slip of this shop, or five were wrong within the hour
fault-slip-wrong-right = the 24 letters of the newest slip
fault-device-code = not a code, used already, or older than ten minutes
fault-device-code-right = a new code: on a device of the shop the mark at the foot of the rail, People and devices, Add a device
fault-login-taken = somebody on this server signs in under this name
fault-login-taken-right = another name
fault-name-taken = somebody here has this name already
fault-name-taken-right = another name, such as one with a letter behind it
fault-last-owner = nobody who owns the shop would be left
fault-last-owner-right = make somebody else an owner first
fault-no-page = no page of this server
fault-page-of-here = a path such as /job/…/set

# What a practice car hides.
trap-sloping-floor = The floor slopes
trap-dip = One wheel stands in a dip
trap-not-settled = It had not rolled since the jack
trap-leans = The body leans
trap-worn-joint = A joint is worn
trap-bent-knuckle = A knuckle is bent
trap-moves = A part moves otherwise than sold
trap-soft-spring = A spring settles on
trap-sticky-plates = The plates stick
trap-low-pressure = A tyre is soft
trap-tabs-in = Tabs hold the cams
trap-seized = A bolt is seized
trap-other-hand = A thread of the other hand
trap-unequal-tracks = The string ran on unequal tracks
trap-other-rim = The rim is not what is stamped on it
trap-skewed-rear = The rear axle points aside
trap-wrong-spring = A spring of another rate
trap-steering-off = The steering wheel stood off
trap-mixed-tyres = Two sizes of tyre
trap-bent-rim = A rim is bent
trap-gauge-off = The gauge was off
practice-traps = { $n } of them
practice-traps-right = one to { $most }
practice-found-right = angles that this shape can have
practice-sentence-right = a sentence
