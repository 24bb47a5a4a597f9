/** An address with all parts that one can have, and nothing in any. */
export const noAddress = () => ({
  name: '',
  company: '',
  street: '',
  neighbourhood: '',
  town: '',
  region: '',
  postcode: '',
  country: '',
});

export type Address = ReturnType<typeof noAddress>;
