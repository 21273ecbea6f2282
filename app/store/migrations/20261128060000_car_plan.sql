-- One plan for the car: what told front and rear apart by the names of its fields says it by its place now. A point picked
-- on a map says which angles it is.
alter table plan no force row level security;
alter table done_step no force row level security;

create function pg_temp.picked(p jsonb) returns jsonb language sql immutable as $$
    select jsonb_build_object(
        'left', case when jsonb_typeof(p -> 0) = 'array'
            then jsonb_build_object('camber_deg', p -> 0 -> 0, 'second_deg', p -> 0 -> 1) else 'null' end,
        'right', case when jsonb_typeof(p -> 1) = 'array'
            then jsonb_build_object('camber_deg', p -> 1 -> 0, 'second_deg', p -> 1 -> 1) else 'null' end)
$$;
create function pg_temp.trim_of(p jsonb) returns jsonb language sql immutable as $$
    select jsonb_build_object('left', coalesce(p -> 0, '0'), 'right', coalesce(p -> 1, '0'))
$$;

update plan set document = jsonb_build_object(
    'format', 2,
    'aim', document -> 'aim',
    'limit_mm', document -> 'limit_mm',
    'axles', jsonb_build_object(
        'front', jsonb_build_object(
            'height_change_mm', coalesce(document -> 'height_change_mm', '0'),
            'settle_mm', coalesce(document -> 'settle_mm', '0'),
            'load_mm', coalesce(document -> 'load_mm', '0'),
            'ways', coalesce(document -> 'ways', '[]'),
            'trim_mm', pg_temp.trim_of(document -> 'trim_mm'),
            'fitted', coalesce(document -> 'fitted', '[]'),
            'picked', pg_temp.picked(document -> 'picked')),
        'rear', jsonb_build_object(
            'height_change_mm', coalesce(document -> 'rear_change_mm', '0'),
            'settle_mm', coalesce(document -> 'rear_settle_mm', '0'),
            'load_mm', coalesce(document -> 'rear_load_mm', '0'),
            'ways', coalesce(document -> 'rear_ways', '[]'),
            'trim_mm', pg_temp.trim_of(document -> 'rear_trim_mm'),
            'fitted', coalesce(document -> 'rear_fitted', '[]'),
            'picked', pg_temp.picked(document -> 'rear_picked'))))
    where not document ? 'axles';

-- Ticks at a gate are named by what they are, not by what the screen said.
update done_step set step = split_part(step, '/', 1) || '/' || case split_part(step, '/', 2)
        when 'Roll 3 m' then 'roll'
        when 'Bounce three times' then 'bounce'
        when 'Re-sweep caster' then 'resweep'
        when 'Steering wheel straight' then 'wheel_straight'
        else split_part(step, '/', 2) end
    where step like '%/%';

alter table plan force row level security;
alter table done_step force row level security;
