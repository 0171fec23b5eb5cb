/** Every kind of link, once. */
import { check } from "./check";
import { dosing } from "./dosing";
import { filter } from "./filter";
import { jet } from "./jet";
import type { LinkKind, LinkOf, NetworkLink } from "./link";
import { pump } from "./pump";
import { rated } from "./rated";
import { run } from "./run";
import { tankPort } from "./tankPort";
import { tee } from "./tee";
import { throttle } from "./throttle";
import { valve } from "./valve";

const linkKinds = { run, tankPort, valve, tee, filter, pump, dosing, check, throttle, rated, jet } satisfies {
  [K in NetworkLink["kind"]]: LinkKind<LinkOf<K>>;
};

/** The descriptor of a link's kind, for that link. */
export const linkKindOf = (link: NetworkLink): LinkKind<NetworkLink> =>
  linkKinds[link.kind] as unknown as LinkKind<NetworkLink>;
