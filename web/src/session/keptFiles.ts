/** Something recorded that the server has not taken yet, with the words that go with it. */
export interface KeptFile {
  /** The name under which it is kept; names begin with whose it is, and what it belongs to. */
  name: string;
  file: File;
  words: string;
}

const STORE = 'files';
/** What stands where words are kept, for each file. */
const MARK = 'file';

function open(): Promise<IDBDatabase> {
  return new Promise((resolve, reject) => {
    const asked = indexedDB.open('porch', 1);
    asked.onupgradeneeded = () => asked.result.createObjectStore(STORE);
    asked.onsuccess = () => resolve(asked.result);
    asked.onerror = () => reject(asked.error);
  });
}

async function within<T>(mode: IDBTransactionMode, step: (store: IDBObjectStore) => IDBRequest<T>): Promise<T> {
  const base = await open();
  try {
    return await new Promise<T>((resolve, reject) => {
      const transaction = base.transaction(STORE, mode);
      const asked = step(transaction.objectStore(STORE));
      transaction.oncomplete = () => resolve(asked.result);
      transaction.onabort = () => reject(transaction.error);
    });
  } finally {
    base.close();
  }
}

/** Keeps a file in this browser until it is sent: it is too large for where words are kept, which only tell that it is there. */
export async function keepFile(begin: string, file: File, words: string): Promise<KeptFile> {
  const name = `${begin}${crypto.randomUUID()}`;
  await within('readwrite', (store) => store.put({ file, words }, name));
  localStorage.setItem(name, MARK);
  return { name, file, words };
}

export async function forgetFile(name: string) {
  localStorage.removeItem(name);
  await within('readwrite', (store) => store.delete(name));
}

/** The files that are kept under names that begin so; those whose mark was taken away are taken away too. */
export async function keptFiles(begin: string): Promise<KeptFile[]> {
  const kept: KeptFile[] = [];
  for (const name of (await within('readonly', (store) => store.getAllKeys())).map(String)) {
    if (localStorage.getItem(name) === null) await forgetFile(name);
    else if (name.startsWith(begin)) {
      const found = await within('readonly', (store) => store.get(name));
      if (found) kept.push({ name, ...found });
    }
  }
  return kept;
}
