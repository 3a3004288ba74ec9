import { useState } from 'react';
import type { Criterion, Level, Measure } from '../api/schema';
import { Button } from '../ui/Button';
import { Word } from '../ui/Word';
import { CALLED, COUNTED, type Counted } from './counted';
import css from './RubricBuilder.module.css';
import { newId } from './wanted';

interface RubricBuilderProps {
  criteria: Criterion[];
  onChange: (criteria: Criterion[]) => void;
}

const MOST_CRITERIA = 12;
const MOST_LEVELS = 8;

/** A rubric as stairs that one writes on: criteria below each other, the steps of each side by side. */
export function RubricBuilder({ criteria, onChange }: RubricBuilderProps) {
  const set = (index: number, part: Partial<Criterion>) =>
    onChange(criteria.map((c, i) => (i === index ? { ...c, ...part } : c)));
  const setLevel = (index: number, at: number, part: Partial<Level>) =>
    set(index, { levels: criteria[index].levels.map((l, i) => (i === at ? { ...l, ...part } : l)) });
  // Which criterion is being dragged, and above which it would come to stand.
  const [dragged, setDragged] = useState<number | null>(null);
  const [over, setOver] = useState<number | null>(null);
  const move = (index: number, by: number) => {
    const moved = [...criteria];
    const [one] = moved.splice(index, 1);
    moved.splice(index + by, 0, one);
    onChange(moved);
  };
  const add = () =>
    onChange([
      ...criteria,
      {
        id: newId(),
        name: '',
        weight: 1,
        levels: [0, 1, 2, 3].map((points) => ({ name: '', points, descriptor: '' })),
        counted: [],
      },
    ]);
  return (
    <div className="above-4">
      {criteria.map((c, i) => (
        <fieldset
          key={c.id}
          className={`${css.criterion} above-0 below-0`}
          data-over={over === i && dragged !== i ? (dragged! < i ? 'below' : 'above') : undefined}
          onDragOver={(e) => {
            if (dragged === null) return;
            e.preventDefault();
            setOver(i);
          }}
          onDrop={(e) => {
            e.preventDefault();
            if (dragged !== null && dragged !== i) move(dragged, i - dragged);
            setDragged(null);
            setOver(null);
          }}
        >
          <legend className="away">Criterion {i + 1}</legend>
          <div className={css.head}>
            {criteria.length > 1 && (
              <span
                className={css.grip}
                aria-hidden="true"
                title="Drag it to another place"
                draggable
                onDragStart={(e) => {
                  e.dataTransfer.effectAllowed = 'move';
                  e.dataTransfer.setData('text/plain', c.name);
                  setDragged(i);
                }}
                onDragEnd={() => {
                  setDragged(null);
                  setOver(null);
                }}
              />
            )}
            <input
              className={css.name}
              aria-label={`Name of criterion ${i + 1}`}
              placeholder="Criterion"
              value={c.name}
              onChange={(e) => set(i, { name: e.target.value })}
            />
            <label className="muted tiny">
              weight{' '}
              <input
                className={css.weight}
                type="number"
                min={0.1}
                step="any"
                aria-label={`Weight of criterion ${i + 1}`}
                value={c.weight}
                onChange={(e) => set(i, { weight: Number(e.target.value) })}
              />
            </label>
            <span className="tiny push">
              <Word
                tiny
                disabled={c.levels.length >= MOST_LEVELS}
                onClick={() =>
                  set(i, {
                    levels: [...c.levels, { name: '', points: (c.levels.at(-1)?.points ?? 0) + 1, descriptor: '' }],
                  })
                }
              >
                Add a level
              </Word>
              {c.levels.length > 2 && (
                <>
                  {' '}
                  ·{' '}
                  <Word
                    tiny
                    onClick={() =>
                      set(i, {
                        levels: c.levels.slice(0, -1),
                        counted: c.counted.map((m) => ({ ...m, atLeast: m.atLeast.slice(0, c.levels.length - 2) })),
                      })
                    }
                  >
                    Take the top one away
                  </Word>
                </>
              )}
              {i > 0 && (
                <>
                  {' · '}
                  <Word tiny onClick={() => move(i, -1)} aria-label={`Up: ${c.name || 'this criterion'}`}>
                    Up
                  </Word>
                </>
              )}
              {i < criteria.length - 1 && (
                <>
                  {' · '}
                  <Word tiny onClick={() => move(i, 1)} aria-label={`Down: ${c.name || 'this criterion'}`}>
                    Down
                  </Word>
                </>
              )}
              {' · '}
              <Word
                tiny
                onClick={() => onChange(criteria.filter((_, x) => x !== i))}
                aria-label={`Take it away: ${c.name || 'this criterion'}`}
              >
                Take it away
              </Word>
            </span>
          </div>
          <div className={css.levels}>
            {c.levels.map((l, n) => (
              <div key={n} className={css.level} style={{ paddingTop: 8 + n * 7 }}>
                <div>
                  <input
                    type="number"
                    step="any"
                    aria-label={`Points of level ${n + 1} of ${c.name}`}
                    value={l.points}
                    onChange={(e) => setLevel(i, n, { points: Number(e.target.value) })}
                  />
                  <input
                    className="grow"
                    aria-label={`Name of level ${n + 1} of ${c.name}`}
                    placeholder="a word"
                    value={l.name}
                    onChange={(e) => setLevel(i, n, { name: e.target.value })}
                  />
                </div>
                <textarea
                  aria-label={`What level ${n + 1} of ${c.name} shows`}
                  placeholder="What a text on this level shows"
                  value={l.descriptor}
                  onChange={(e) => setLevel(i, n, { descriptor: e.target.value })}
                />
              </div>
            ))}
          </div>
          <CountedBeside criterion={c} onChange={(counted) => set(i, { counted })} />
        </fieldset>
      ))}
      {criteria.length < MOST_CRITERIA && <Button onClick={add}>Add a criterion</Button>}
    </div>
  );
}

interface CountedBesideProps {
  criterion: Criterion;
  onChange: (counted: Measure[]) => void;
}

/** What the program counts beside a criterion, and from how many on it speaks for which level. */
function CountedBeside({ criterion, onChange }: CountedBesideProps) {
  const { counted, levels, name } = criterion;
  const says = counted.map((m) => CALLED[m.what]).join(', ');
  const setNumber = (what: Counted, at: number, text: string) =>
    onChange(
      counted.map((m) => {
        if (m.what !== what) return m;
        // What speaks for a level speaks for all below it: the first gap ends the row.
        const before = m.atLeast.slice(0, at);
        return { ...m, atLeast: text === '' ? before : [...before, Number(text), ...m.atLeast.slice(at + 1)] };
      }),
    );
  return (
    <details className={css.counted}>
      <summary className="tiny">Counted beside it: {says || 'nothing'}</summary>
      <p className="tiny muted above-2 below-2">
        The marker sees these numbers. If you say from how many on they speak for a level, that level is proposed; a
        person decides.
      </p>
      {COUNTED.map((what) => {
        const measure = counted.find((m) => m.what === what);
        return (
          <div key={what} className={css.measure}>
            <label>
              <input
                type="checkbox"
                checked={!!measure}
                onChange={() =>
                  onChange(measure ? counted.filter((m) => m !== measure) : [...counted, { what, atLeast: [] }])
                }
              />{' '}
              {CALLED[what]}
            </label>
            {measure &&
              levels.slice(1).map((l, n) => (
                <label key={l.points} className="tiny muted">
                  {l.name || `level ${n + 2}`} from{' '}
                  <input
                    type="number"
                    min={0}
                    className={css.least}
                    aria-label={`${CALLED[what]} from which on ${l.name || `level ${n + 2}`} of ${name} is proposed`}
                    disabled={n > measure.atLeast.length}
                    value={measure.atLeast[n] ?? ''}
                    onChange={(e) => setNumber(what, n, e.target.value)}
                  />
                </label>
              ))}
          </div>
        );
      })}
    </details>
  );
}
