// The stages of a job, in order.
export const stages = ['arrive', 'read', 'plan', 'wear', 'set', 'prove', 'return'] as const;
export type StageName = (typeof stages)[number];
export const stageTitle = (s: string) => s.charAt(0).toUpperCase() + s.slice(1);
