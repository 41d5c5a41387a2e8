import { render, screen } from '@testing-library/svelte';
import { expect, it } from 'vitest';
import type { Step, StepHelp } from '../api/types';
import { aFill } from '../plan/fixtures';
import StageHead from './StageHead.svelte';

const help = {
  kind: 'read-date',
  title: 'Read as date',
  help: '',
  settings: [
    { name: 'order', type: 'choice', required: false, choices: ['day-month-year'] },
    { name: 'pattern', type: 'text', required: false, choices: [] },
    { name: 'calendar', type: 'choice', required: false, choices: ['persian'] },
  ],
} as unknown as StepHelp;

function shown(settings: Record<string, string>): string[] {
  const step = { kind: 'read-date', with: settings, off: false } as Step;
  const nothing = () => {};
  const acts = { put: nothing, add: nothing, change: nothing, edit: nothing };
  const about = { altered: 0, tried: false, trying: false, columns: [], books: [] };
  render(StageHead, { step, at: 0, fill: aFill('due', 'Due'), help, ...acts, ...about });
  return help.settings
    .map((s) => s.name)
    .filter((name) => !screen.getByLabelText(`Read as date: ${name}`).closest('.spare'));
}

it('shows what is said of a step, and else the first of what may be said', () => {
  expect(shown({ calendar: 'persian' })).toEqual(['calendar']);
  document.body.innerHTML = '';
  expect(shown({})).toEqual(['order']);
});
