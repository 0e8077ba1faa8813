import { createHash, createSign, generateKeyPairSync, randomBytes } from 'node:crypto'

// A device that keeps passkeys, as WebAuthn level 2 (W3C) has it: ES256, no attestation. It does what it is told, also what no device would.

/** How an answer differs from what an honest device under this door would give. */
export type Told = { origin: string; name: string; verified?: boolean; counter?: number; type?: string }

const UP = 0x01
const UV = 0x04
const ATTESTED = 0x40

const text = (bytes: Uint8Array): string => Buffer.from(bytes).toString('base64url')
const sum = (bytes: Uint8Array | string): Buffer => createHash('sha256').update(bytes).digest()
const two = (length: number): Buffer => Buffer.from([length >> 8, length & 0xff])

export function newDevice() {
  const { privateKey, publicKey } = generateKeyPairSync('ec', { namedCurve: 'P-256' })
  const id = randomBytes(32)
  const { x = '', y = '' } = publicKey.export({ format: 'jwk' })
  // CBOR by hand: a map of five, {1: 2, 3: -7, -1: 1, -2: x, -3: y}
  const key = Buffer.concat([
    Buffer.from('a5010203262001215820', 'hex'),
    Buffer.from(x, 'base64url'),
    Buffer.from('225820', 'hex'),
    Buffer.from(y, 'base64url'),
  ])
  let uses = 0

  const clientData = (type: string, challenge: string, { origin }: Told): Buffer =>
    Buffer.from(JSON.stringify({ type, challenge, origin, crossOrigin: false }))
  const authData = (
    { name, verified = true, counter = uses }: Told,
    flags = 0,
    more: Uint8Array = new Uint8Array(),
  ) => {
    const count = Buffer.alloc(4)
    count.writeUInt32BE(counter)
    return Buffer.concat([sum(name), Buffer.from([UP | (verified ? UV : 0) | flags]), count, more])
  }
  const answered = (response: object): string =>
    JSON.stringify({ id: text(id), rawId: text(id), type: 'public-key', response, clientExtensionResults: {} })

  return {
    id: text(id),
    /** Makes a passkey for a question. */
    make({ challenge }: { challenge: string }, told: Told): string {
      const attested = Buffer.concat([Buffer.alloc(16), two(id.length), id, key])
      const data = authData(told, ATTESTED, attested)
      // {"fmt": "none", "attStmt": {}, "authData": bytes}
      const object = Buffer.concat([
        Buffer.from('a363666d74646e6f6e656761747453746d74a068617574684461746159', 'hex'),
        two(data.length),
        data,
      ])
      return answered({
        clientDataJSON: text(clientData(told.type ?? 'webauthn.create', challenge, told)),
        attestationObject: text(object),
        transports: ['internal'],
      })
    },
    /** Answers a question. */
    answer({ challenge }: { challenge: string }, told: Told): string {
      uses += 1
      const data = authData(told)
      const client = clientData(told.type ?? 'webauthn.get', challenge, told)
      const signature = createSign('sha256').update(data).update(sum(client)).sign(privateKey)
      return answered({ clientDataJSON: text(client), authenticatorData: text(data), signature: text(signature) })
    },
  }
}
