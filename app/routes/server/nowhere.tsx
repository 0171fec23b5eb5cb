/** An address at which there is nothing: told by the server, and without network by the page itself. */
const nothing = () => new Response("There is nothing at this address.", { status: 404 });

export function loader(): never {
  throw nothing();
}

export function clientLoader(): never {
  throw nothing();
}
clientLoader.hydrate = true as const;

/** Never shown: what stands round it says that there is nothing here. */
export default function Nowhere() {
  return null;
}
