import type { WeekLine } from '../api/schema';
import { When } from '../ui/When';
import css from './Report.module.css';

/** Whether somebody was told of the week, and whether the mail went. */
export function WhatWasTold({ line: { told, hasAddress }, note }: { line: WeekLine; note: string }) {
  return (
    <span className={css.told}>
      {told ? (
        <>
          told <When at={told.at} />
          {told.mail?.startsWith('failed') ? (
            <b>, the mail could not go yet</b>
          ) : told.mail === 'sent' ? (
            ', mailed'
          ) : told.mail ? (
            ', the mail waits'
          ) : (
            ', on the Porch'
          )}
        </>
      ) : (
        !hasAddress && 'no address: on the Porch only'
      )}
      {note && note !== told?.note && <i> with a new note</i>}
    </span>
  );
}
