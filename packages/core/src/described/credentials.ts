import { isRecord } from '../json/json.ts';
import { escaped } from './pointer.ts';

/** What has to be sent along so that an API answers, as a security scheme of its document says it. */
export interface ApiCredential {
  /** What the document calls it. */
  readonly name: string;
  /** A token of who has signed in, a name with a password, or a key of the app. */
  readonly kind: 'bearer' | 'basic' | 'key';
  /** Where a key is sent, and under which name. */
  readonly in?: 'header' | 'query' | 'cookie';
  readonly as?: string;
  /** Where people sign in for a token, where that is not one of the operations. */
  readonly signIn?: string;
}

/** A name that a header or a parameter can have; nothing else is written into code. */
const NAME = /^[\w.-]{1,100}$/;

/**
 * The credentials that a document describes. Schemes of OAuth 2 and OpenID Connect end in a bearer token.
 * @param resolved gives what a reference stands for, or null
 * @param tell hears what cannot be read, with its JSON Pointer
 */
export function credentialsOf(
  document: Readonly<Record<string, unknown>>,
  resolved: (value: unknown, at: string) => unknown,
  tell: (at: string, message: string) => void,
): ApiCredential[] {
  const { components } = document;
  const schemes = isRecord(components) ? components.securitySchemes : undefined;
  if (!isRecord(schemes)) return [];
  return Object.entries(schemes).flatMap(([name, value]): ApiCredential[] => {
    const at = `/components/securitySchemes/${escaped(name)}`;
    const scheme = resolved(value, at);
    if (!isRecord(scheme)) {
      tell(at, 'expected a security scheme');
      return [];
    }
    switch (scheme.type) {
      case 'apiKey': {
        const { in: place, name: as } = scheme;
        if (
          (place === 'header' || place === 'query' || place === 'cookie') &&
          typeof as === 'string' &&
          NAME.test(as)
        )
          return [{ name, kind: 'key', in: place, as }];
        tell(at, 'a key has a name, and is sent in header, query or cookie');
        return [];
      }
      case 'http': {
        const kind = typeof scheme.scheme === 'string' ? scheme.scheme.toLowerCase() : '';
        if (kind === 'bearer' || kind === 'basic') return [{ name, kind }];
        tell(at, 'of HTTP authentication, “bearer” and “basic” are known');
        return [];
      }
      case 'oauth2':
      case 'openIdConnect':
        return [{ name, kind: 'bearer', ...signInOf(scheme) }];
      case 'mutualTLS':
        // The browser sees to it.
        return [];
      default:
        tell(at, 'expected a type: apiKey, http, oauth2 or openIdConnect');
        return [];
    }
  });
}

function signInOf(scheme: Readonly<Record<string, unknown>>): { readonly signIn?: string } {
  const flows = isRecord(scheme.flows) ? Object.values(scheme.flows).filter(isRecord) : [];
  const said = [
    ...flows.flatMap(({ authorizationUrl, tokenUrl }) => [authorizationUrl, tokenUrl]),
    scheme.openIdConnectUrl,
  ];
  const signIn = said.find((one): one is string => typeof one === 'string' && one !== '');
  return signIn === undefined ? {} : { signIn: signIn.slice(0, 500) };
}
