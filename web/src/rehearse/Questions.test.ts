import { render, screen } from '@testing-library/svelte';
import userEvent from '@testing-library/user-event';
import { tick } from 'svelte';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { api } from '../api/client';
import type { Question } from '../api/types';
import { anEntry, anOpenPlan, aReport, aRun, savesInto } from '../plan/fixtures';
import { standing } from '../plan/trip';
import { keyboard } from '../ui/keys.svelte';
import Questions from './Questions.svelte';

const word = (value: string, rows: number, field = 'type_id'): Question => ({
  code: 'unknown-link',
  destination: 'vessel',
  field,
  value,
  rows,
});

/** The report of a rehearsal in which seventy rows wait. */
function asking(questions: Question[]) {
  const report = aReport({ questions });
  return { ...report, destinations: [{ ...report.destinations[0]!, waiting: 70 }] };
}

describe('questions, answered where they are asked', () => {
  const post = vi.fn();
  const get = vi.fn();
  beforeEach(() => {
    vi.restoreAllMocks();
    vi.useRealTimers();
    post.mockReset().mockImplementation((path: string) =>
      Promise.resolve({
        data: path.endsWith('/suggestions')
          ? [
              { value: 'ketch', near: true },
              { value: 'sloop', near: false },
              { value: 'cutter', near: false },
              { value: 'dinghy', near: false },
            ]
          : {},
      }),
    );
    get.mockReset().mockResolvedValue({ data: {} });
    vi.spyOn(api, 'POST').mockImplementation(post as never);
    vi.spyOn(api, 'GET').mockImplementation(get as never);
  });

  function show(questions: Question[], info: object = {}) {
    const open = anOpenPlan();
    const field = open.view.table.fields.find((f) => f.name === 'type_id');
    if (!field) {
      const fields = [
        ...open.view.table.fields,
        { ...open.view.table.fields[0]!, name: 'type_id', nullable: true, unique: false, ...info },
      ];
      open.view = { ...open.view, table: { ...open.view.table, fields } };
    }
    open.putFill({
      ...open.destination.fills[0]!,
      field: 'type_id',
      origin: {
        kind: 'link',
        column: 'Kind',
        link: { by: 'name', with: [], also: [], create: [] },
      },
      steps: [],
    } as never);
    savesInto();
    vi.spyOn(open, 'rehearse').mockResolvedValue(null);
    open.rehearsal = aRun({ report: asking(questions) });
    const asked = { show: vi.fn(), decide: vi.fn(), mend: vi.fn() };
    render(Questions, { open, ...asked });
    return { open, ...asked };
  }
  const learnt = () =>
    post.mock.calls.filter((c) => c[0] === '/api/phrasebooks/learn').map((c) => c[1].body);

  it('lets rows that are much like records be new ones, all at once', async () => {
    const { open, decide } = show([
      { code: 'similar', destination: 'vessel', field: 'registration', value: '', rows: 2 },
    ]);
    const notes = [{ code: 'similar' }];
    const pairs = [4, 9].map((line) => ({ ...anEntry(line), matchedBy: 1, notes }));
    const candidates = [['931', '7,b'], []];
    get.mockResolvedValue({ data: { fields: ['registration', 'name'], pairs, candidates } });
    expect(
      await screen.findByText('Records of vessel are much like rows in registration'),
    ).toBeInTheDocument();
    await userEvent.click(screen.getByRole('button', { name: 'Decide side by side' }));
    expect(decide).toHaveBeenCalledWith('similar', 0);
    await userEvent.click(screen.getByRole('button', { name: 'Add 2 rows as New' }));
    expect(get.mock.calls.at(-1)![1].params.query).toEqual({
      destination: 0,
      of: 'similar',
      pairs: 200,
    });
    expect(open.destination.decisions).toEqual([
      { of: { registration: 'QH-4' }, act: 'other', not: [['931'], ['7,b']] },
      { of: { registration: 'QH-9' }, act: 'other', not: [] },
    ]);
    expect(screen.queryByText(/much like rows/)).toBeNull();
  });

  it('leaves rows out that are much like earlier ones, and no others', async () => {
    const { open } = show([
      { code: 'similar-row', destination: 'vessel', field: 'registration', value: '', rows: 1 },
    ]);
    const pairs = ['similar-row', 'similar'].map((code, i) => ({
      ...anEntry(i + 4),
      matchedBy: 1,
      notes: [{ code }],
    }));
    const found = { fields: ['registration', 'name'], pairs, candidates: [[], []] };
    get.mockResolvedValue({ data: found });
    expect(await screen.findByText(/much like earlier rows in registration/)).toBeInTheDocument();
    await userEvent.click(screen.getByRole('button', { name: 'Leave them out' }));
    expect(open.destination.decisions).toEqual([{ of: { registration: 'QH-4' }, act: 'skip' }]);
  });

  it('has one rule say which of contradicting lines is right, or shows them', async () => {
    const { open, decide } = show([
      { code: 'contradicted', destination: 'vessel', field: 'registration', value: '', rows: 4 },
    ]);
    expect(
      await screen.findByText('Lines with the same registration say different things'),
    ).toBeInTheDocument();
    await userEvent.click(screen.getByRole('button', { name: 'Side by side' }));
    expect(decide).toHaveBeenCalledWith('repeats', 0);
    await userEvent.click(screen.getByRole('button', { name: 'Merge' }));
    expect(open.destination.policies.onRepeat).toBe('merge');
  });

  it('is answered by letters where there is nothing to choose among', async () => {
    const guess: Question = { ...word('LOA', 9, 'length_m'), code: 'guess' };
    const { open, decide } = show([
      guess,
      { code: 'contradicted', destination: 'vessel', field: 'registration', value: '', rows: 4 },
    ]);
    const confirm = vi.spyOn(open, 'confirm');
    expect(await screen.findByRole('button', { name: 'Confirm' })).toBeInTheDocument();
    keyboard.handle(new KeyboardEvent('keydown', { key: 'a' }));
    expect(confirm).toHaveBeenCalledWith('length_m', 0);
    expect(await screen.findByRole('button', { name: 'Merge' })).toBeInTheDocument();
    keyboard.handle(new KeyboardEvent('keydown', { key: 'd' }));
    expect(decide).toHaveBeenCalledWith('repeats', 0);
    keyboard.handle(new KeyboardEvent('keydown', { key: 'b' }));
    expect(open.destination.policies.onRepeat).toBe('keep-first');
  });

  it('asks once how the dates of a file are meant, and reads it so', async () => {
    const dates = (field: string): Question => ({
      ...word('03/04/2026', 12, field),
      code: 'ambiguous-dates',
    });
    const { open } = show([dates('in_on'), dates('out_on')]);
    open.view = {
      ...open.view,
      source: {
        ...open.view.source,
        reading: { locale: { decimal: ',', dateOrder: 'day-month-year' } },
      },
    };
    expect(
      await screen.findByText(/may be a day of two months, in in_on, out_on/),
    ).toHaveTextContent('03/04/2026 may be a day of two months');
    expect(screen.getByText('1 question')).toBeInTheDocument();
    expect(screen.getByText('Day first: 3 April')).toBeInTheDocument();
    expect(screen.getByText('Month first: 4 March')).toBeInTheDocument();
    keyboard.handle(new KeyboardEvent('keydown', { key: 'b' }));
    keyboard.handle(new KeyboardEvent('keydown', { key: 'Enter' }));
    expect(open.plan.reading).toMatchObject({
      locale: { decimal: ',', dateOrder: 'month-day-year' },
      confirmed: ['ambiguous-dates:'],
    });
    await vi.waitFor(() => expect(open.rehearse).toHaveBeenCalled(), 2000);
    expect(screen.queryByText(/two months/)).toBeNull();
  });

  it('says of a question that is not in hand how many words and rows it has', async () => {
    show([
      word('Ketch', 5),
      { ...word('Pier', 3), field: 'pier_id' },
      { ...word('Quay', 2), field: 'pier_id' },
    ]);
    const other = (await screen.findByText('Pier')).closest('button')!;
    expect(other).toHaveTextContent('and 1 more word');
    expect(other).toHaveTextContent('5 rows');
    await userEvent.click(other);
    expect(other).not.toHaveTextContent('more word');
    expect(other).toHaveTextContent('3 rows');
  });

  it('does not add another record to several of the same name', async () => {
    const link = { table: 'person', keyField: 'id', declared: true };
    show([{ ...word('Ann Lee', 2), code: 'several-links' }], { link });
    expect(await screen.findByText(/names several of person/)).toBeInTheDocument();
    expect(screen.getByText('Leave blank')).toBeInTheDocument();
    expect(screen.queryByText(/Add it/)).toBeNull();
  });

  it('asks about columns that are unlike those of the last file', async () => {
    const { open } = show([]);
    const shape = (name: string) => ({ name, letter: 'A', type: 'text' as const });
    const changes = [
      {
        kind: 'renamed' as const,
        before: shape('LOA'),
        now: shape('Length'),
        because: 'it stands in the same place',
      },
    ];
    open.view = { ...open.view, source: { ...open.view.source, changes } };
    expect(await screen.findByText('1 column unlike last time')).toBeInTheDocument();
    expect(screen.getByText('“LOA” is now “Length”')).toBeInTheDocument();
    expect(screen.getByRole('button', { name: /Take the new names/ })).toBeEnabled();
    keyboard.handle(new KeyboardEvent('keydown', { key: 'a' }));
    expect(open.plan.reading.renamed).toEqual({ Length: 'LOA' });
    await vi.waitFor(() => expect(open.rehearse).toHaveBeenCalled(), 2000);
  });

  it('asks about values that are far from all others, one by one or together', async () => {
    const far = (value: string): Question => ({ ...word(value, 1), code: 'far-off' });
    const { open, show: see } = show([far('12300'), far('9999')]);
    expect(await screen.findByText('is far from all others', { exact: false })).toHaveTextContent(
      'type_id 12300 is far from all others',
    );
    await userEvent.click(screen.getByRole('button', { name: 'see its rows' }));
    expect(see).toHaveBeenCalledWith('type_id', '12300', 0);
    await userEvent.click(screen.getByRole('button', { name: 'It is right' }));
    expect(open.fill('type_id')?.farOff).toEqual(['12300']);
    expect(screen.queryByRole('button', { name: /All/ })).toBeNull();
    await userEvent.click(screen.getByRole('button', { name: 'It is right' }));
    expect(open.fill('type_id')?.farOff).toEqual(['12300', '9999']);
    expect(screen.queryByText(/far from/)).toBeNull();
  });

  it('reads the cell of a number that is wrong as another one', async () => {
    const { open } = show([{ ...word('12300', 1), code: 'far-off' }]);
    open.putFill({ ...open.fill('type_id')!, origin: { kind: 'column', column: 'LOA' } } as never);
    open.view = {
      ...open.view,
      source: { ...open.view.source, columns: [{ name: 'Kind' }, { name: 'LOA' }] as never },
    };
    const note = { code: 'far-off', field: 'type_id', value: '12300', reason: '', question: true };
    const entries = [
      { ...anEntry(9), row: 7, notes: [note] },
      { ...anEntry(12), row: 10, notes: [{ ...note, field: 'other' }] },
    ];
    get.mockImplementation((path: string) =>
      Promise.resolve({
        data: path.endsWith('/window')
          ? [{ row: 7, line: 9, cells: [{ text: 'ketch' }, { text: '12.300,00' }], values: [] }]
          : { fields: [], entries, total: 2 },
      }),
    );
    await userEvent.type(await screen.findByLabelText('12300 reads'), '12,3');
    await userEvent.click(screen.getByRole('button', { name: 'Read so' }));
    await vi.waitFor(() =>
      expect(open.plan.corrections).toEqual([
        { line: 9, column: 'LOA', was: '12.300,00', now: '12,3' },
      ]),
    );
    open.correct({ line: 9, column: 'LOA', was: '12,3', now: '12,5' });
    expect(open.plan.corrections).toEqual([
      { line: 9, column: 'LOA', was: '12.300,00', now: '12,5' },
    ]);
    await vi.waitFor(() => expect(open.rehearse).toHaveBeenCalled(), 2000);
  });

  it('can be told not to ask for a field', async () => {
    const { open } = show([{ ...word('12300', 1), code: 'far-off' }]);
    await userEvent.click(await screen.findByRole('button', { name: 'don’t ask here' }));
    expect(open.fill('type_id')?.farOff).toEqual(['*']);
  });

  it('holds no row that is rejected for something else too', async () => {
    const { open } = show([word('Ketch rig', 37), { ...word('12', 52), field: 'length_m' }]);
    expect(await screen.findByText('2 questions, holding 70 rows')).toBeInTheDocument();
    const report = open.rehearsal!.report!;
    const [only] = report.destinations;
    const destinations = [{ ...only!, waiting: 67 }];
    open.rehearsal = aRun({ report: { ...report, destinations } });
    expect(await screen.findByText('2 questions, holding 67 rows')).toBeInTheDocument();
  });

  it('offers what is likely first, and takes it by a key', async () => {
    const { open } = show([word('Ketch rig', 37), word('mtr', 4)]);
    const refresh = vi.spyOn(open, 'refresh').mockResolvedValue();
    expect(await screen.findByText('likely')).toBeInTheDocument();
    expect(screen.getByText('1 question, holding 41 rows')).toBeInTheDocument();
    keyboard.handle(new KeyboardEvent('keydown', { key: 'Enter' }));
    expect(await screen.findByText('mtr', { selector: '.word' })).toBeInTheDocument();
    expect(learnt()).toMatchObject([{ from: 'Ketch rig', to: 'ketch' }]);
    // the fill asks the book from now on, and the counts have moved
    expect(open.fill('type_id')?.steps[0]).toMatchObject({ kind: 'translate' });
    expect(screen.getByText('1 question, holding 4 rows')).toBeInTheDocument();
    expect(refresh).toHaveBeenCalledOnce();
    await vi.waitFor(() => expect(open.rehearse).toHaveBeenCalled(), 2000);
  });

  it('teaches a plan’s own phrasebook, which goes before the shared one', async () => {
    const { open } = show([word('Ketch rig', 37), word('mtr', 4)]);
    vi.spyOn(open, 'refresh').mockResolvedValue();
    const phrases = [
      { from: 'Ketch rig', to: 'barge' },
      { from: 'brig', to: 'sloop' },
    ];
    open.edit((plan) => ({ ...plan, phrasebooks: [{ name: 'Rigs', phrases }] }));
    const step = { kind: 'translate' as const, with: { book: 'Rigs' }, off: false };
    open.putFill({ ...open.fill('type_id')!, steps: [step] });
    expect(await screen.findByText('likely')).toBeInTheDocument();
    keyboard.handle(new KeyboardEvent('keydown', { key: 'Enter' }));
    expect(await screen.findByText('mtr', { selector: '.word' })).toBeInTheDocument();
    expect(learnt()).toEqual([]);
    expect(open.plan.phrasebooks).toEqual([
      { name: 'Rigs', phrases: [phrases[1], { from: 'Ketch rig', to: 'ketch' }] },
    ]);
    expect(open.fill('type_id')?.steps).toEqual([step]);
  });

  it('shows what little else it may mean, but does not answer so by itself', async () => {
    post.mockImplementation(() =>
      Promise.resolve({
        data: [
          { value: 'ketch', near: false },
          { value: 'sloop', near: false },
        ],
      }),
    );
    show([word('mtr', 4)]);
    await screen.findByText('sloop', { selector: 'b' });
    keyboard.handle(new KeyboardEvent('keydown', { key: 'Enter' }));
    expect(learnt()).toEqual([]);
    await userEvent.click(await screen.findByText('sloop', { selector: 'b' }));
    await userEvent.click(screen.getByRole('button', { name: 'Answer 4' }));
    expect(learnt()).toMatchObject([{ from: 'mtr', to: 'sloop' }]);
  });

  it('takes up the question that the address names, and names the one in hand', async () => {
    history.replaceState(null, '', '?question=guess:length_m');
    const guess: Question = { ...word('LOA', 1204, 'length_m'), code: 'guess' };
    show([word('Ketch rig', 37), guess]);
    const heads = await screen.findAllByRole('button', { expanded: true });
    expect(heads.map((h) => h.textContent)).toEqual([
      expect.stringContaining('length_m is filled by a guess'),
    ]);
    await userEvent.click(screen.getByText('Ketch rig'));
    expect(location.search).toBe('?question=words%3Atype_id');
    history.replaceState(null, '', location.pathname);
  });

  it('takes another word, or leaves blank', async () => {
    show([word('Ketch rig', 37), word('mtr', 4)]);
    const input = await screen.findByLabelText('“Ketch rig” means');
    await userEvent.type(input, 'sloop{Enter}');
    expect(await screen.findByText('mtr', { selector: '.word' })).toBeInTheDocument();
    await screen.findByText('likely');
    await userEvent.click(screen.getByText('Leave blank'));
    await userEvent.click(screen.getByRole('button', { name: 'Answer 4' }));
    expect(learnt()).toMatchObject([{ to: 'sloop' }, { from: 'mtr' }]);
    expect(learnt()[1].to).toBeUndefined();
  });

  it('keeps what was begun, or answered meanwhile, when a rehearsal comes', async () => {
    const words = [word('Ketch rig', 37), word('mtr', 4)];
    const { open } = show(words);
    const rehearsed = async (id: number) => {
      open.rehearsal = aRun({ id, report: asking(words.map((w) => ({ ...w }))) });
      await tick();
    };
    await userEvent.type(await screen.findByLabelText('“Ketch rig” means'), 'slo');
    await rehearsed(9);
    await userEvent.type(screen.getByLabelText('“Ketch rig” means'), 'op{Enter}');
    expect(await screen.findByText('mtr', { selector: '.word' })).toBeInTheDocument();
    expect(learnt()).toMatchObject([{ from: 'Ketch rig', to: 'sloop' }]);
    await rehearsed(10);
    expect(screen.getByText('1 question, holding 4 rows')).toBeInTheDocument();
    open.answersKnown = open.answers;
    await rehearsed(11);
    expect(screen.getByText('1 question, holding 41 rows')).toBeInTheDocument();
  });

  it('never answers with nothing', async () => {
    show([word('Ketch rig', 37)]);
    await userEvent.click(await screen.findByLabelText('“Ketch rig” means'));
    await userEvent.click(screen.getByRole('button', { name: 'Answer 37' }));
    expect(learnt()).toEqual([]);
    expect(screen.getByText('Ketch rig', { selector: '.word' })).toBeInTheDocument();
  });

  it('settles rows that match several by one more field, or side by side', async () => {
    get.mockResolvedValue({
      data: { further: [{ key: 1, field: 'name', settles: 33, of: 41 }] },
    });
    const several: Question = {
      code: 'several-matches',
      destination: 'vessel',
      field: 'registration',
      value: '',
      rows: 41,
    };
    const { open, decide } = show([several]);
    expect(standing(open, 'match').words).toBe('by registration');
    await userEvent.click(await screen.findByRole('button', { name: 'Decide side by side' }));
    expect(decide).toHaveBeenCalledWith('several', 0);
    await userEvent.click(screen.getByRole('button', { name: 'Settle 33' }));
    expect(open.destination.keys.map((k) => k.fields)).toEqual([
      ['registration', 'name'],
      ['registration'],
    ]);
  });

  it('lets one policy answer for all', async () => {
    const none: Question = {
      code: 'no-match',
      destination: 'vessel',
      field: 'registration',
      value: '',
      rows: 9,
    };
    const { open } = show([none]);
    await userEvent.click(screen.getByRole('button', { name: 'Add all 9' }));
    expect(open.destination.policies.onNone).toBe('add');
    expect(screen.queryByText('Questions')).toBeNull();
  });

  const vesselType = [
    { name: 'id', generated: true, nullable: false, hasDefault: true },
    { name: 'name', generated: false, nullable: false, hasDefault: false },
    { name: 'code', type: 'text', generated: false, nullable: false, hasDefault: false },
  ];

  it('adds the records of all words, once it has what they need', async () => {
    get.mockResolvedValue({ data: { fields: vesselType } });
    const { open } = show([word('yole', 37), word('cat', 4)], {
      link: { table: 'vessel_type', field: 'id' },
    });
    await userEvent.click(await screen.findByRole('button', { name: /Add all 2 words/ }));
    const answer = screen.getByRole('button', { name: 'Answer 41' });
    await vi.waitFor(() => expect(answer).toBeDisabled());
    await userEvent.selectOptions(await screen.findByLabelText('New vessel_type: code'), 'always…');
    expect(answer).toBeDisabled();
    await userEvent.type(screen.getByLabelText('Value of code'), 'Y');
    await userEvent.tab();
    expect(answer).toBeEnabled();
    await userEvent.click(answer);
    const link = open.fill('type_id')!.origin.link!;
    expect(link.whenMissing).toBe('create');
    expect(link.create.map((c) => c.field)).toEqual(['code']);
    expect(screen.queryByText('Questions')).toBeNull();
  });

  it('adds the record of one word, then of another, and asks about the rest', async () => {
    get.mockResolvedValue({ data: { fields: vesselType } });
    const { open } = show([word('yole', 37), word('cat', 4), word('raft', 1)], {
      link: { table: 'vessel_type', field: 'id' },
    });
    await userEvent.click(await screen.findByRole('button', { name: /Add it to vessel_type/ }));
    await userEvent.selectOptions(await screen.findByLabelText('New vessel_type: code'), 'always…');
    await userEvent.type(screen.getByLabelText('Value of code'), 'Y{Enter}');
    await vi.waitFor(() => expect(screen.getByText('cat', { selector: '.word' })).toBeVisible());
    await userEvent.click(await screen.findByRole('button', { name: /Add it to vessel_type/ }));
    const answer = screen.getByRole('button', { name: 'Answer 4' });
    await vi.waitFor(() => expect(answer).toBeEnabled());
    await userEvent.click(answer);
    const link = open.fill('type_id')!.origin.link!;
    expect(link.whenMissing).toBe('create');
    expect(link.createOnly).toEqual(['yole', 'cat']);
    await vi.waitFor(() => expect(screen.getByText('raft', { selector: '.word' })).toBeVisible());
    await userEvent.click(await screen.findByRole('button', { name: /Reject its rows/ }));
    await userEvent.click(screen.getByRole('button', { name: 'Answer 1' }));
    expect(open.fill('type_id')!.origin.link!.whenMissing).toBe('reject');
  });

  it('goes by Enter to what a new record still needs', async () => {
    get.mockResolvedValue({
      data: { fields: [...vesselType, { ...vesselType.at(-1)!, name: 'rig' }] },
    });
    const { open } = show([word('yole', 37)], { link: { table: 'vessel_type', field: 'id' } });
    await userEvent.click(await screen.findByRole('button', { name: /Add it to vessel_type/ }));
    const code = await screen.findByLabelText('New vessel_type: code');
    const enter = () => keyboard.handle(new KeyboardEvent('keydown', { key: 'Enter' }));
    enter();
    expect(code).toHaveFocus();
    await userEvent.selectOptions(code, 'always…');
    code.blur();
    enter();
    expect(screen.getByLabelText('Value of code')).toHaveFocus();
    await userEvent.keyboard('Y{Enter}');
    await vi.waitFor(() => expect(screen.getByLabelText('New vessel_type: rig')).toHaveFocus());
    await userEvent.selectOptions(screen.getByLabelText('New vessel_type: rig'), 'always…');
    await userEvent.type(screen.getByLabelText('Value of rig'), 'sloop{Enter}');
    await vi.waitFor(() => expect(open.fill('type_id')!.origin.link!.whenMissing).toBe('create'));
  });

  it('holds no more rows than there are, each of which may wait for several answers', () => {
    show([word('yole', 60), word('cat', 60)]);
    expect(screen.getByText('1 question, holding 70 rows')).toBeInTheDocument();
  });

  it('rejects the rows of all words', async () => {
    get.mockResolvedValue({ data: { fields: vesselType } });
    const { open } = show([word('yole', 37)], { link: { table: 'vessel_type', field: 'id' } });
    await userEvent.click(await screen.findByRole('button', { name: /Reject its rows/ }));
    await userEvent.click(screen.getByRole('button', { name: 'Answer 37' }));
    expect(open.fill('type_id')!.origin.link!.whenMissing).toBe('reject');
  });

  it('answers many words in a list, each with what is likely', async () => {
    const { open } = show([word('Ketch rig', 37), word('mtr', 4), word('yole', 2)]);
    await userEvent.click(await screen.findByRole('button', { name: 'all in a list' }));
    const yole = screen.getByLabelText('“yole” means');
    await vi.waitFor(() => expect(yole).toHaveValue('ketch'));
    await userEvent.clear(yole);
    const mtr = screen.getByLabelText('“mtr” means');
    await userEvent.clear(mtr);
    await userEvent.type(mtr, 'sloop');
    await userEvent.click(screen.getByRole('button', { name: 'Answer 2 words' }));
    await vi.waitFor(() => expect(screen.getByText('yole', { selector: '.word' })).toBeVisible());
    expect(learnt()).toMatchObject([
      { from: 'Ketch rig', to: 'ketch' },
      { from: 'mtr', to: 'sloop' },
    ]);
    expect(screen.getByText('1 question, holding 2 rows')).toBeInTheDocument();
    expect(open.fill('type_id')?.steps).toHaveLength(1);
  });
});
