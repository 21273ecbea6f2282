// The plans of a job: pick, rename, duplicate, remove, compare.
import { Bare, Plain } from '../../ui/Press';
import { newPlan, savePlan, copyPlan, removePlan } from '../../api/calls';
import { Button, Dialog, Menu, MenuItem, TextField } from '@mui/material';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import { ApiProblem, type Plan, type CarPlan } from '../../api/client';
import { Refusal } from '../../shell/Fault';
import { Glyph } from '../../ui/glyphs';
import { useChoose } from '../../shell/ChoosePlan';
import { ticketKey, type Bench } from '../../shell/ticket';

export function PlanMenu({ bench }: { bench: Bench }) {
  const { ticket, plan, draft, saving } = bench;
  const [anchor, setAnchor] = useState<HTMLElement>();
  const choice = useChoose(bench);
  const [name, setName] = useState<string>();
  const queries = useQueryClient();
  const navigate = useNavigate();
  const fresh = () => queries.invalidateQueries({ queryKey: ticketKey(ticket.job.id) });
  const copy = useMutation({
    mutationFn: copyPlan,
    onSuccess: async (p) => {
      await fresh();
      bench.pick(p.id);
    },
  });
  const rename = useMutation({
    mutationFn: (n: string) =>
      savePlan(plan?.id ?? '', { version: plan?.version ?? 0, name: n, document: draft! }),
    onSuccess: async () => {
      setName(undefined);
      await fresh();
    },
  });
  const [asking, setAsking] = useState(false);
  const [gone, setGone] = useState<{ name: string; document: CarPlan }>();
  const remove = useMutation({
    mutationFn: (p: Plan) => removePlan(p.id),
    onSuccess: async (_, p) => {
      setAsking(false);
      setGone({ name: p.name, document: draft ?? p.document });
      await fresh();
    },
  });
  const bringBack = useMutation({
    mutationFn: (body: { name: string; document: CarPlan }) => newPlan(ticket.job.id, body),
    onSuccess: async (p) => {
      setGone(undefined);
      await fresh();
      bench.pick(p.id);
    },
  });
  useEffect(() => {
    if (!gone) return;
    const t = setTimeout(() => setGone(undefined), 8000);
    return () => clearTimeout(t);
  }, [gone]);
  const steps = ticket.done.filter((d) => d.plan_id === plan?.id && !d.step.includes('/')).length;
  if (!plan) return null;
  const close = () => setAnchor(undefined);
  const fault =
    rename.error instanceof ApiProblem
      ? (rename.error.at('name') ?? { wrong: rename.error.message, right: '' })
      : undefined;
  return (
    <div style={{ display: 'flex', alignItems: 'center', gap: 8 }}>
      <Bare
        onClick={(e) => setAnchor(e.currentTarget)}
        data-testid="plan-menu"
        aria-haspopup="menu"
        style={{
          display: 'flex',
          alignItems: 'center',
          gap: 8,
          minHeight: 44,
          minWidth: 0,
          flex: 1,
          fontWeight: 700,
        }}
      >
        <span style={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
          {plan.name}
          {ticket.plans.length > 1 && (
            <span className="small mut" style={{ fontWeight: 500 }} data-testid="plan-role">
              {bench.chosen ? ' · to set' : ' · not the one to set'}
            </span>
          )}
        </span>
        <svg width="12" height="8" viewBox="0 0 12 8" aria-hidden="true" style={{ flex: 'none' }}>
          <path d="M1 1L6 6L11 1" fill="none" stroke="currentColor" strokeWidth="2" />
        </svg>
      </Bare>
      <span className="word small mut" data-testid="saving" style={{ fontSize: 13 }}>
        <Glyph name={saving === 'saved' ? 'done' : saving === 'saving' ? 'stale' : 'unread'} size={14} />
        {saving === 'saved' ? 'Saved' : saving === 'saving' ? 'Saving' : 'Not saved yet'}
      </span>
      <Menu open={!!anchor} anchorEl={anchor} onClose={close}>
        {ticket.plans.map((p) => (
          <MenuItem
            key={p.id}
            selected={p.id === plan.id}
            onClick={() => {
              bench.pick(p.id);
              close();
            }}
            sx={{ minHeight: 44, gap: 1 }}
          >
            <Glyph name={p.id === plan.id ? 'now' : 'unread'} size={14} /> {p.name}
            {p.id === ticket.job.plan_id && <span className="small mut">to set</span>}
          </MenuItem>
        ))}
        <MenuItem divider disabled sx={{ minHeight: 6, p: 0 }} />
        <MenuItem
          sx={{ minHeight: 44 }}
          disabled={bench.chosen || choice.pending}
          data-testid="plan-choose"
          onClick={() => {
            close();
            choice.ask();
          }}
        >
          {bench.chosen ? 'This is the one to set' : 'Make it the one to set'}
        </MenuItem>
        <MenuItem
          sx={{ minHeight: 44 }}
          data-testid="plan-rename"
          onClick={() => {
            close();
            setName(plan.name);
          }}
        >
          Rename
        </MenuItem>
        <MenuItem
          sx={{ minHeight: 44 }}
          data-testid="plan-copy"
          onClick={() => {
            close();
            copy.mutate(plan.id);
          }}
        >
          Duplicate
        </MenuItem>
        <MenuItem
          sx={{ minHeight: 44 }}
          data-testid="plan-compare"
          onClick={() => {
            close();
            navigate(`../compare${window.location.search}`);
          }}
        >
          Compare side by side
        </MenuItem>
        <MenuItem
          sx={{ minHeight: 44 }}
          data-testid="plan-order"
          onClick={() => {
            close();
            navigate(`../order${window.location.search}`);
          }}
        >
          Parts to order
        </MenuItem>
        <MenuItem
          sx={{ minHeight: 44 }}
          role="menuitemcheckbox"
          aria-checked={!!draft?.as_sold}
          data-testid="plan-as-sold"
          onClick={() => {
            close();
            bench.change({ as_sold: !draft?.as_sold });
          }}
        >
          {draft?.as_sold ? '✓ ' : ''}Parts as sold, not as they moved here
        </MenuItem>
        <MenuItem
          sx={{ minHeight: 44 }}
          disabled={ticket.plans.length < 2}
          data-testid="plan-remove"
          onClick={() => {
            close();
            setAsking(true);
          }}
        >
          Remove
        </MenuItem>
      </Menu>
      {choice.dialog}
      {choice.fault && <Refusal error={choice.fault} />}
      <Dialog open={asking} onClose={() => setAsking(false)} aria-labelledby="remove-title">
        <div style={{ padding: 22, width: 420, maxWidth: '90vw' }}>
          <h2 id="remove-title">Remove “{plan.name}”?</h2>
          <p style={{ margin: '12px 0 16px' }}>
            {steps
              ? `${steps} step${steps > 1 ? 's' : ''} of its sheet were done; the record of them goes with it.`
              : 'Nothing of its sheet was done.'}
          </p>
          {remove.error && <Refusal error={remove.error} />}
          <div style={{ display: 'flex', gap: 10, justifyContent: 'flex-end' }}>
            <Button variant="outlined" onClick={() => setAsking(false)}>
              Keep it
            </Button>
            <Button
              variant="contained"
              disabled={remove.isPending}
              onClick={() => remove.mutate(plan)}
              data-testid="plan-remove-sure"
            >
              Remove
            </Button>
          </div>
        </div>
      </Dialog>
      {gone && (
        <div className="toast" role="status" style={{ padding: '0 0 0 16px' }}>
          <Glyph name="done" /> “{gone.name}” is removed.
          <Plain onClick={() => bringBack.mutate(gone)} data-testid="plan-undo-remove">
            Undo
          </Plain>
        </div>
      )}
      <Dialog open={name !== undefined} onClose={() => setName(undefined)}>
        <form
          style={{ padding: 22, width: 400, maxWidth: '90vw' }}
          onSubmit={(e) => {
            e.preventDefault();
            if (name !== undefined) rename.mutate(name);
          }}
        >
          <h2 style={{ marginBottom: 16 }}>Name this plan</h2>
          <TextField
            autoFocus
            fullWidth
            label="Name"
            value={name ?? ''}
            onChange={(e) => setName(e.target.value)}
            error={!!fault}
            helperText={fault && `${fault.wrong}. ${fault.right}`}
            slotProps={{ htmlInput: { 'data-testid': 'plan-name', maxLength: 200 } }}
          />
          <div style={{ display: 'flex', gap: 10, justifyContent: 'flex-end', marginTop: 16 }}>
            <Button variant="outlined" onClick={() => setName(undefined)}>
              Leave
            </Button>
            <Button type="submit" variant="contained" disabled={saving !== 'saved'}>
              Rename
            </Button>
          </div>
        </form>
      </Dialog>
    </div>
  );
}
