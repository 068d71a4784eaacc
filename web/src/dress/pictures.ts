/** Pictures a client brought, kept in this browser alone: they never leave this machine. */
export interface Picture {
  /** The picture as it was chosen. */
  file: Blob;
  /** What of it the dress has already, by name. */
  ticked: string[];
}

const NAME = "hem.pictures";

function store(): Promise<IDBDatabase> {
  return new Promise((done, failed) => {
    const asked = indexedDB.open(NAME, 1);
    asked.onupgradeneeded = () => asked.result.createObjectStore(NAME);
    asked.onsuccess = () => done(asked.result);
    asked.onerror = () => failed(asked.error);
  });
}

async function run<T>(mode: IDBTransactionMode, work: (kept: IDBObjectStore) => IDBRequest<T>): Promise<T> {
  const database = await store();
  try {
    return await new Promise((done, failed) => {
      const kept = database.transaction(NAME, mode);
      const asked = work(kept.objectStore(NAME));
      kept.oncomplete = () => done(asked.result); // not before it is on the disk
      kept.onerror = () => failed(kept.error);
      kept.onabort = () => failed(kept.error);
    });
  } finally {
    database.close();
  }
}

export const pictureOf = (dress: number) => run<Picture | undefined>("readonly", (kept) => kept.get(dress));
export const keepPicture = (dress: number, picture: Picture) =>
  run("readwrite", (kept) => kept.put(picture, dress));
export const dropPicture = (dress: number) => run("readwrite", (kept) => kept.delete(dress));
