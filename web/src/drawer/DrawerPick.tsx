import { Modal } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { drawerOptions } from '../api/queries';
import type { DrawerItem } from '../api/schema';
import { useClass } from '../session/useClass';
import css from './Drawer.module.css';
import { DrawerFront } from './DrawerFront';

/** The way to the drawer of the class, in the tool row; it is there while something lies in the drawer. */
export function DrawerPick({ onTake }: { onTake: (item: DrawerItem) => void }) {
  const { id } = useClass();
  const { data } = useQuery(drawerOptions(id));
  const [open, setOpen] = useState(false);
  if (!data?.length) return null;
  return (
    <>
      <button type="button" onClick={() => setOpen(true)}>
        Drawer
      </button>
      <Modal opened={open} onClose={() => setOpen(false)} title="From the drawer of the class" size="lg">
        <p className="muted above-0 below-3">Choose what is to stand in your text.</p>
        <ul className={css.items}>
          {data.map((item) => (
            <li key={item.id}>
              <button
                type="button"
                className={css.item}
                onClick={() => {
                  setOpen(false);
                  onTake(item);
                }}
              >
                <DrawerFront item={item} />
              </button>
            </li>
          ))}
        </ul>
      </Modal>
    </>
  );
}
