// of-object.ts — what is known of objects that never change.

/** Something of objects that never change, made when it is first asked for. */
export class OfObject<K extends object, V> {
  private readonly known = new WeakMap<K, V>();
  private readonly make: (object: K) => V;

  constructor(make: (object: K) => V) {
    this.make = make;
  }

  get(object: K): V {
    const known = this.known.get(object);
    if (known !== undefined) return known;
    const value = this.make(object);
    this.known.set(object, value);
    return value;
  }
}
