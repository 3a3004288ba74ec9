import { fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { describe, expect, it } from 'vitest';
import { surroundings } from '../testing/page';
import { TitleField } from './TitleField';

let title = '';

function Field({ begin }: { begin: string }) {
  const [value, setValue] = useState(begin);
  title = value;
  return <TitleField whose="each student" value={value} onChange={setValue} />;
}

const open = (begin: string) => render(<Field begin={begin} />, { wrapper: surroundings().wrapper });

describe('a title with the name of each student in it', () => {
  it('shows the name as a chip between the words, and shows no braces to anybody', () => {
    open('Log of {name}, week by week');
    expect((screen.getByLabelText('Title, before the name') as HTMLInputElement).value).toBe('Log of ');
    expect((screen.getByLabelText('Title, after the name') as HTMLInputElement).value).toBe(', week by week');
    expect(screen.getByText('name of each student')).toBeTruthy();
    fireEvent.change(screen.getByLabelText('Title, before the name'), { target: { value: 'The notes of ' } });
    expect(title).toBe('The notes of {name}, week by week');
  });

  it('takes the name out and puts it in', () => {
    open('Log of {name}');
    fireEvent.click(screen.getByLabelText('Take the name out of the title'));
    expect(title).toBe('Log of');
    fireEvent.click(screen.getByText('Put in the name of each student'));
    expect(title).toBe('Log of {name}');
  });
});
