import { Modal, NativeSelect, NumberInput, TextInput } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { putJson } from '../api/client';
import { bundlesOptions } from '../api/queries';
import type { BundlesView, BundleView, SheetPrompt } from '../api/schema';
import { useWrite } from '../api/write';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { Loading, Trouble } from '../ui/Trouble';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import css from './ScoreSheet.module.css';

interface BundlesDialogProps {
  prompts: SheetPrompt[];
  onClose: () => void;
}

/** Which prompts count together, how much, and how many of them. */
export function BundlesDialog({ prompts, onClose }: BundlesDialogProps) {
  const { id } = useClass();
  const { data, error } = useQuery({ ...bundlesOptions(id), staleTime: 0, gcTime: 0 });
  return (
    <Modal opened onClose={onClose} size="xl" title="Prompts that count together">
      {error && <Trouble error={error} />}
      {!data && !error && <Loading />}
      {data && <Bundles key={data.seen} known={data} prompts={prompts} onClose={onClose} />}
    </Modal>
  );
}

function Bundles({ known, prompts, onClose }: BundlesDialogProps & { known: BundlesView }) {
  const { id } = useClass();
  const [bundles, setBundles] = useState<BundleView[]>(
    known.bundles.length > 0
      ? known.bundles
      : [{ name: 'All prompts', weight: 100, best: 0, never: 'ZERO', prompts: prompts.map((p) => p.id) }],
  );
  const save = useWrite(() => putJson<BundlesView>(`/api/classes/${id}/bundles`, { bundles, seen: known.seen }), {
    here: true,
    stale: [['bundles', id], ['score-sheet', id], ['prompts']],
    onDone: onClose,
  });
  const set = (at: number, part: Partial<BundleView>) =>
    setBundles(bundles.map((b, i) => (i === at ? { ...b, ...part } : b)));
  const put = (prompt: number, at: number) =>
    setBundles(
      bundles.map((b, i) => ({
        ...b,
        prompts: i === at ? [...b.prompts.filter((p) => p !== prompt), prompt] : b.prompts.filter((p) => p !== prompt),
      })),
    );
  return (
    <>
      {bundles.map((b, i) => (
        <fieldset key={b.id ?? `new ${i}`} className={css.one}>
          <legend className="away">{b.name || 'A bundle'}</legend>
          <TextInput
            label="Name"
            value={b.name}
            maxLength={80}
            onChange={(e) => set(i, { name: e.currentTarget.value })}
          />
          <NumberInput
            label="Weight"
            min={0.1}
            max={10_000}
            value={b.weight}
            onChange={(value) => set(i, { weight: Number(value) || 0 })}
          />
          <NumberInput
            label="Best so many count"
            description="0 for all"
            min={0}
            max={100}
            allowDecimal={false}
            value={b.best}
            onChange={(value) => set(i, { best: Number(value) || 0 })}
          />
          <NativeSelect
            label="What never came"
            data={[
              { value: 'ZERO', label: 'counts 0' },
              { value: 'LEFT_OUT', label: 'is left out' },
            ]}
            value={b.never}
            onChange={(e) => set(i, { never: e.currentTarget.value as BundleView['never'] })}
          />
          <Word
            tiny
            aria-label={`Take it away: ${b.name}`}
            onClick={() => setBundles(bundles.filter((_, x) => x !== i))}
          >
            Take it away
          </Word>
        </fieldset>
      ))}
      <p className="above-3 below-4">
        <Word onClick={() => setBundles([...bundles, { name: '', weight: 100, best: 0, never: 'ZERO', prompts: [] }])}>
          Another bundle
        </Word>
      </p>
      <h3 className="smaller above-2 below-2">Which prompt is in which</h3>
      <div className={css.which}>
        {prompts.map((p) => (
          <label key={p.id}>
            <span>{p.title}</span>
            <select
              className="pick"
              value={bundles.findIndex((b) => b.prompts.includes(p.id))}
              onChange={(e) => put(p.id, Number(e.target.value))}
            >
              <option value={-1}>none, counts nowhere</option>
              {bundles.map((b, i) => (
                <option key={b.id ?? `new ${i}`} value={i}>
                  {b.name || 'without a name yet'}
                </option>
              ))}
            </select>
          </label>
        ))}
      </div>
      <Wrong says={save.problem} />
      <p className="row above-4 below-0">
        <Button go disabled={save.busy} onClick={() => save.run()}>
          Keep them
        </Button>
        <Button onClick={onClose}>{t.cancel}</Button>
      </p>
    </>
  );
}
