/** What follows from an object alone is worked out once for it, and forgotten with it. */
export function oncePer<Key extends object, Value>(make: (key: Key) => Value): (key: Key) => Value {
  const known = new WeakMap<Key, { readonly value: Value }>();
  return (key) => {
    let entry = known.get(key);
    if (!entry) known.set(key, (entry = { value: make(key) }));
    return entry.value;
  };
}
