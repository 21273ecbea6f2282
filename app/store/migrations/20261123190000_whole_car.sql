-- The whole car: a rear axle of any layout, and the facts of the car that no single axle holds.

alter table vehicle
    add column rear_geometry jsonb,
    add column rear_knowledge text not null default 'archetype',
    add column car jsonb not null default '{}';
